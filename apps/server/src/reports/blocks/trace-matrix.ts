import { stateSchema } from '@coomb/contract';
import { escapeHtml, linkKindsOfRole, stateWords } from '@coomb/core';
import { z } from 'zod';
import { type Cell, table } from '../document-parts.js';
import { paperColours } from '../palette.js';
import { titleWithClause } from '../title-with-clause.js';
import type { ReportBlock, ReportScene } from './block.js';

const schema = z.object({
  title: z.string(),
  rows: z.array(
    z.object({ reference: z.string(), title: z.string(), heading: z.boolean(), state: stateSchema, design: z.array(z.string()), tests: z.array(z.string()) }),
  ),
});
type TraceMatrix = z.infer<typeof schema>;

/** Requirements with what satisfies and what verifies them, in reading order; only where it was asked for. */
export const traceMatrix: ReportBlock<TraceMatrix> = {
  type: 'traceMatrix',
  title: 'Trace matrix',
  schema,
  upgrades: [],
  build: (scene) => (scene.scope.matrices.size > 0 ? buildRows(scene) : undefined),
  isEmpty: ({ rows }) => rows.length === 0,
  ownPage: true,
  page: ({ rows }, { item }) => {
    const lines = rows.map((row) =>
      row.heading
        ? `<tr class="heading"><td colspan="5">${escapeHtml(row.title)}</td></tr>`
        : `<tr><td>${item(row.reference)}</td><td>${escapeHtml(row.title)}</td><td><i style="background:#${paperColours[row.state]}"></i>${stateWords[row.state].label}</td><td>${row.design.map(item).join(', ') || '<em>none</em>'}</td><td>${row.tests.map(item).join(', ') || '<em>none</em>'}</td></tr>`,
    );
    return `<table><thead><tr><th>Requirement</th><th>Title</th><th>State</th><th>Satisfied or refined by</th><th>Verified by</th></tr></thead><tbody>${lines.join('')}</tbody></table>`;
  },
  document: ({ rows }) => {
    const lines = rows.map((row): Cell[] =>
      row.heading
        ? [{ text: row.title, bold: true, fill: 'EFE9DC', span: 5 }]
        : [row.reference, row.title, stateWords[row.state].label, row.design.join(', ') || '–', row.tests.join(', ') || '–'],
    );
    return [table(['Requirement', 'Title', 'State', 'Satisfied or refined by', 'Verified by'], lines, [14, 36, 12, 19, 19])];
  },
};

function buildRows({ state, scope }: ReportScene): TraceMatrix {
  const { of, verifies } = state.scheme.verification;
  const verify = state.linkKindIndex(verifies);
  const design = (['satisfies', 'refines'] as const).flatMap((role) => linkKindsOfRole(state.scheme, role).map(({ id }) => state.linkKindIndex(id)));
  const rows: TraceMatrix['rows'] = [];
  for (const node of state.outline().nodes) {
    const item = state.items[node]!;
    if (!scope.matrices.has(item.collectionId) || !scope.within(node) || !(item.heading || of.kinds.includes(item.kind))) continue;
    const others = (kinds: number[]) =>
      state.graph
        .findLinks(node, 'in')
        .filter((link) => kinds.includes(state.graph.kind[link]!) && state.isPresent(state.graph.from[link]!))
        .map((link) => state.items[state.graph.from[link]!]!.reference);
    rows.push({
      reference: item.reference,
      title: titleWithClause(state, node),
      heading: item.heading,
      state: state.stateOf(node),
      design: item.heading ? [] : others(design),
      tests: item.heading ? [] : others([verify]),
    });
  }
  return { title: 'Requirements, design and tests', rows };
}
