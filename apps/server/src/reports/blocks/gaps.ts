import { briefSchema } from '@coomb/contract';
import { counted, type CoverageRule, escapeHtml, stateWords, UsageCoverage } from '@coomb/core';
import { Paragraph } from 'docx';
import { z } from 'zod';
import { findOpen } from '../../check/findings.js';
import type { ProjectState } from '../../project-state/project-state.js';
import { table } from '../document-parts.js';
import { titleWithClause } from '../title-with-clause.js';
import { listSome } from '../list-some.js';
import type { ReportBlock } from './block.js';

const schema = z.object({ gaps: z.array(z.object({ item: briefSchema, why: z.array(z.string()) })) });
type Gaps = z.infer<typeof schema>;
const NONE = 'None: every rule is met or waived, and no test fails.';

/** Items with an open gap, and what is missing at each. */
export const gaps: ReportBlock<Gaps> = {
  type: 'gaps',
  title: 'Gaps',
  schema,
  upgrades: [],
  build: ({ state, scope }) => {
    const { rowOf } = state.outline();
    const open = findOpen(state)
      .filter(scope.within)
      .sort((a, b) => rowOf[a]! - rowOf[b]!);
    return {
      gaps: open.map((node) => {
        const why = state.scheme.rules
          .filter((rule) => state.question(rule).subject[node] && state.coverage(rule).stateOf(node) === 'notMet')
          .map((rule) => `Not met: ${rule.label.toLowerCase()}${sayUses(state, rule, node)}`);
        if (state.stateOf(node) === 'failing') why.unshift(stateWords.failing.label);
        return { item: { ...state.brief(node), title: titleWithClause(state, node) }, why };
      }),
    };
  },
  page: (data, { item }) => {
    if (data.gaps.length === 0) return `<p>${NONE}</p>`;
    const rows = data.gaps.map(
      (gap) => `<tr><td>${item(gap.item.reference)}</td><td>${escapeHtml(gap.item.title)}</td><td>${escapeHtml(gap.why.join('; '))}</td></tr>`,
    );
    return `<p>${counted(data.gaps.length, 'item')}.</p><table><thead><tr><th>Item</th><th>Title</th><th>Why</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
  },
  document: (data, { item }) =>
    data.gaps.length === 0
      ? [new Paragraph(NONE)]
      : [
          table(
            ['Item', 'Title', 'Why'],
            data.gaps.map((gap) => [item(gap.item.reference), gap.item.title, gap.why.join('; ')]),
            [15, 50, 35],
          ),
        ],
};

/** Where an item is used in several places and some of them have what is asked: the others. */
function sayUses(state: ProjectState, rule: CoverageRule, node: number): string {
  const coverage = state.coverage(rule);
  const uses = coverage instanceof UsageCoverage ? state.usages.asked(state.items[node]!.id) : [];
  const open = uses.filter(({ number }) => (coverage as UsageCoverage).stateIn(node, number) === 'notMet');
  return open.length === uses.length ? '' : `, as ${listSome(open.map(({ path }) => state.usages.sayPath(path)))}`;
}
