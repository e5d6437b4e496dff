import { timeSchema } from '@coomb/contract';
import { escapeHtml, stateWords, verificationStates } from '@coomb/core';
import { Paragraph } from 'docx';
import { z } from 'zod';
import type { Change, ItemValue } from '../../ledger/change.js';
import type { ProjectState } from '../../project-state/project-state.js';
import { type Cell, right, table } from '../document-parts.js';
import type { ReportScope } from '../report-scope.js';
import { sayDate } from '../report-words.js';
import type { ReportBlock, ReportScene } from './block.js';
import { coverage } from './coverage.js';
import { summary } from './summary.js';

const schema = z.object({
  since: z.object({ number: z.number(), at: timeSchema }),
  moved: z.array(z.object({ label: z.string(), before: z.number(), now: z.number() })),
  changed: z.array(z.object({ reference: z.string(), title: z.string(), what: z.string() })),
});
type Changes = z.infer<typeof schema>;

/** What moved and what changed since the last report about the same. */
export const changes: ReportBlock<Changes> = {
  type: 'changes',
  title: 'What changed',
  schema,
  upgrades: [],
  build: (scene) =>
    scene.last && {
      since: { number: scene.last.number, at: scene.last.at },
      moved: findMoved(scene),
      changed: findChanged(scene.state, scene.touched, scene.scope.within),
    },
  page: ({ since, moved, changed }, { item }) => {
    const figures = moved.map(
      (one) =>
        `<tr><td>${escapeHtml(one.label)}</td><td class="n">${one.before}</td><td class="n">${one.now}</td><td class="n">${one.now > one.before ? '+' : '−'}${Math.abs(one.now - one.before)}</td></tr>`,
    );
    const items = changed.map(
      (one) =>
        `<tr><td>${one.reference === 'Links' ? 'Links' : item(one.reference)}</td><td>${escapeHtml(one.title)}</td><td>${escapeHtml(one.what)}</td></tr>`,
    );
    const table = moved.length
      ? `<table><thead><tr><th>Figure</th><th class="n">Then</th><th class="n">Now</th><th class="n">Moved</th></tr></thead><tbody>${figures.join('')}</tbody></table>`
      : '<p>No figure moved.</p>';
    return `<p>Since report ${since.number} of ${sayDate(since.at)} UTC.</p>${table}${items.length ? `<table><thead><tr><th>Item</th><th>Title</th><th>What happened</th></tr></thead><tbody>${items.join('')}</tbody></table>` : '<p>No item changed.</p>'}`;
  },
  document: ({ since, moved, changed }, { item }) => [
    new Paragraph({ spacing: { after: 160 }, text: `Since report ${since.number} of ${sayDate(since.at)} UTC.` }),
    ...(moved.length
      ? [
          table(
            ['Figure', 'Then', 'Now', 'Moved'],
            moved.map((one): Cell[] => [
              one.label,
              right(one.before),
              right(one.now),
              right(`${one.now > one.before ? '+' : '−'}${Math.abs(one.now - one.before)}`),
            ]),
            [55, 15, 15, 15],
          ),
          new Paragraph(''),
        ]
      : [new Paragraph('No figure moved.')]),
    ...(changed.length
      ? [
          table(
            ['Item', 'Title', 'What happened'],
            changed.map((one) => [item(one.reference), one.title, one.what]),
            [18, 60, 22],
          ),
        ]
      : [new Paragraph('No item changed.')]),
  ],
};

/** Figures that are others than they were. A report that had no such figures says nothing of them. */
function findMoved({ last, readiness: now }: ReportScene): Changes['moved'] {
  const [figures, covered] = [last?.dataOf(summary), last?.dataOf(coverage)];
  const moved: Changes['moved'] = [];
  for (const state of figures ? verificationStates : []) {
    const was = figures?.states.find((one) => one.state === state)?.count ?? 0;
    const is = now.states.find((one) => one.state === state)?.count ?? 0;
    if (was !== is) moved.push({ label: `Requirements: ${stateWords[state].label.toLowerCase()}`, before: was, now: is });
  }
  for (const rule of now.rules) {
    const was = covered?.rules.find((one) => one.rule === rule.rule);
    if (was && was.counts.notMet !== rule.counts.notMet) moved.push({ label: `${rule.label}: not met`, before: was.counts.notMet, now: rule.counts.notMet });
  }
  for (const result of figures ? now.results : []) {
    const was = figures?.results.find((one) => one.id === result.id)?.count ?? 0;
    if (was !== result.count) moved.push({ label: result.label, before: was, now: result.count });
  }
  return moved;
}

/** One line per item: what became of it, however many steps it took. */
function findChanged(state: ProjectState, touched: readonly Change[], within: ReportScope['within']): Changes['changed'] {
  const lines = new Map<string, { before: ItemValue | null; after: ItemValue }>();
  const links = { made: 0, removed: 0, confirmed: 0 };
  for (const { entity, before, after } of touched) {
    if (entity === 'link') {
      if (after.withdrawn) links.removed++;
      else if (!before || before.withdrawn) links.made++;
      else links.confirmed++;
    }
    if (entity !== 'item' || after.heading) continue;
    const node = state.nodeOf.get(after.id);
    if (node === undefined || !within(node)) continue;
    lines.set(after.id, { before: lines.has(after.id) ? lines.get(after.id)!.before : before, after });
  }
  const changed: Changes['changed'] = [];
  for (const { before, after } of lines.values()) {
    const what = describe(before, after);
    if (what) changed.push({ reference: after.reference, title: after.title, what });
  }
  changed.sort((a, b) => order(state, a.reference) - order(state, b.reference));
  if (links.made) changed.push({ reference: 'Links', title: `${links.made} made`, what: 'new' });
  if (links.removed) changed.push({ reference: 'Links', title: `${links.removed} removed`, what: 'removed' });
  if (links.confirmed) changed.push({ reference: 'Links', title: `${links.confirmed} confirmed`, what: 'confirmed' });
  return changed;
}

function describe(before: ItemValue | null, after: ItemValue): string | undefined {
  if (!before) return after.withdrawn ? undefined : 'new';
  if (after.withdrawn !== before.withdrawn) return after.withdrawn ? 'withdrawn' : 'restored';
  if (after.title !== before.title || after.html !== before.html) return 'reworded';
  if (JSON.stringify(after.fields) !== JSON.stringify(before.fields)) return 'fields changed';
  if (after.parentId !== before.parentId || after.rank !== before.rank) return 'moved';
  return undefined;
}

function order(state: ProjectState, reference: string): number {
  const node = state.byReference.get(reference.toLowerCase());
  return node === undefined ? -1 : state.outline().rowOf[node]!;
}
