import { stateSchema } from '@coomb/contract';
import { addToGroup, counted, escapeHtml, isUseWithin, linkKindsOfRole, stateWords } from '@coomb/core';
import { z } from 'zod';
import type { ProjectState } from '../../project-state/project-state.js';
import { type Cell, table } from '../document-parts.js';
import { listSome } from '../list-some.js';
import { paperColours } from '../palette.js';
import { titleWithClause } from '../title-with-clause.js';
import type { ReportBlock, ReportScene } from './block.js';

/** What is linked; where the link holds in some of its uses only, in which and in which not. */
const other = z.object({ reference: z.string(), as: z.array(z.string()), notAs: z.array(z.string()) });
const row = z.object({ reference: z.string(), title: z.string(), heading: z.boolean(), state: stateSchema, design: z.array(other), tests: z.array(other) });
const schema = z.object({ title: z.string(), rows: z.array(row) });
type TraceMatrix = z.infer<typeof schema>;
type Other = z.infer<typeof other>;

interface Former {
  rows: { design: string[]; tests: string[] }[];
}
const everywhere = (reference: string): Other => ({ reference, as: [], notAs: [] });

const sayNot = ({ notAs }: Other) => (notAs.length > 0 ? `Not linked as ${notAs.join(', ')}` : '');

/** Behind a reference: in which uses the link holds, and in how many it does not. */
function sayUses({ as, notAs }: Other): string {
  if (as.length === 0) return '';
  return ` as ${listSome(as)}${notAs.length > 0 ? `; not linked in ${counted(notAs.length, 'other use')}` : ''}`;
}

/** Requirements with what satisfies and what verifies them, in reading order; only where it was asked for. */
export const traceMatrix: ReportBlock<TraceMatrix> = {
  type: 'traceMatrix',
  title: 'Trace matrix',
  schema,
  upgrades: [
    // Before uses were told apart: references only.
    (data) => {
      const { rows, ...rest } = data as Former;
      return { ...rest, rows: rows.map((one) => ({ ...one, design: one.design.map(everywhere), tests: one.tests.map(everywhere) })) };
    },
  ],
  build: (scene) => (scene.scope.matrices.size > 0 ? buildRows(scene) : undefined),
  isEmpty: ({ rows }) => rows.length === 0,
  ownPage: true,
  page: ({ rows }, { item }) => {
    const cell = (others: Other[]) =>
      others
        .map((one) => `${item(one.reference)}${one.as.length > 0 ? `<small title="${escapeHtml(sayNot(one))}">${escapeHtml(sayUses(one))}</small>` : ''}`)
        .join('<br>') || '<em>none</em>';
    const lines = rows.map((row) =>
      row.heading
        ? `<tr class="heading"><td colspan="5">${escapeHtml(row.title)}</td></tr>`
        : `<tr><td>${item(row.reference)}</td><td>${escapeHtml(row.title)}</td><td class="state"><i style="background:#${paperColours[row.state]}"></i>${stateWords[row.state].label}</td><td>${cell(row.design)}</td><td>${cell(row.tests)}</td></tr>`,
    );
    return `<table><thead><tr><th>Requirement</th><th>Title</th><th>State</th><th>Satisfied or refined by</th><th>Verified by</th></tr></thead><tbody>${lines.join('')}</tbody></table>`;
  },
  document: ({ rows }, { item, coatOf }) => {
    const cell = (others: Other[]): Cell =>
      others.length === 0
        ? '–'
        : {
            words: others.flatMap((one, at) => [
              { text: one.reference, coat: coatOf(one.reference) },
              { text: `${sayUses(one)}${at < others.length - 1 ? ', ' : ''}` },
            ]),
          };
    const lines = rows.map((row): Cell[] =>
      row.heading
        ? [{ text: row.title, bold: true, fill: 'EFE9DC', span: 5 }]
        : [item(row.reference), row.title, stateWords[row.state].label, cell(row.design), cell(row.tests)],
    );
    return [table(['Requirement', 'Title', 'State', 'Satisfied or refined by', 'Verified by'], lines, [14, 36, 12, 19, 19])];
  },
};

function buildRows({ state, scope }: ReportScene): TraceMatrix {
  const { of, verifies } = state.scheme.verification;
  const verify = state.linkKindIndex(verifies);
  const design = (['satisfies', 'refines'] as const).flatMap((role) => linkKindsOfRole(state.scheme, role).map(({ id }) => state.linkKindIndex(id)));
  const rows: TraceMatrix['rows'] = [];
  const { nodes, rowOf } = state.outline();
  for (const node of nodes) {
    const item = state.items[node]!;
    if (!scope.matrices.has(item.collectionId) || !scope.within(node) || !(item.heading || of.kinds.includes(item.kind))) continue;
    const others = (kinds: number[]) => {
      const linksOf = new Map<number, number[]>();
      for (const link of state.graph.findLinks(node, 'in'))
        if (kinds.includes(state.graph.kind[link]!) && state.isPresent(state.graph.from[link]!)) addToGroup(linksOf, state.graph.from[link]!, link);
      return [...linksOf].sort(([a], [b]) => rowOf[a]! - rowOf[b]!).map(([from, links]) => describeOther(state, from, links));
    };
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

/** The item at the other end of links of one row; uses are told where each link holds in one of them only. */
function describeOther(state: ProjectState, from: number, links: readonly number[]): Other {
  const { id, reference } = state.items[from]!;
  const stored = links.map((link) => state.linkUsage(link)?.from ?? null);
  if (stored.includes(null)) return everywhere(reference);
  const linked = stored.map((usage) => state.usages.pathOf(usage!));
  const says = (uses: readonly { path: readonly string[] }[]) => uses.map(({ path }) => state.usages.sayPath(path));
  const isLinked = ({ path }: { path: readonly string[] }) => linked.some((one) => isUseWithin(path, one));
  const uses = state.usages.of(id);
  return { reference, as: says(uses.filter(isLinked)), notAs: says(uses.filter((use) => !use.gone && !isLinked(use))) };
}
