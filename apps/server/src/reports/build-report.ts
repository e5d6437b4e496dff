import type { Readiness, ReportBody } from '@coomb/contract';
import { linkKindsOfRole, verificationStates, stateWords } from '@coomb/core';
import { buildReadiness } from '../check/readiness.js';
import { findOpen } from '../check/findings.js';
import type { Change, ItemValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import type { ReportScope } from './report-scope.js';

/** Freezes the state of a project into a report. `last` is the report before, `touched` what changed since. */
export function buildReportBody(
  state: ProjectState,
  wish: { title: string; note: string; at: string; person: string },
  scope: ReportScope,
  last: { number: number; body: ReportBody } | undefined,
  touched: readonly Change[],
): ReportBody {
  const readiness = buildReadiness(state, scope.within);
  return {
    project: state.name,
    ...wish,
    seq: state.seq,
    parts: scope.parts,
    readiness,
    gaps: buildGaps(state, scope.within),
    matrix: buildMatrix(state, scope),
    since: last ? { number: last.number, at: last.body.at } : null,
    moved: last ? buildMoved(last.body.readiness, readiness) : [],
    changed: last ? buildChanged(state, touched, scope.within) : [],
  };
}

function buildGaps(state: ProjectState, within: ReportScope['within']): ReportBody['gaps'] {
  const { rowOf } = state.outline();
  return findOpen(state)
    .filter(within)
    .sort((a, b) => rowOf[a]! - rowOf[b]!)
    .map((node) => {
      const why = state.scheme.rules
        .filter((rule) => state.question(rule).subject[node] && state.coverage(rule).stateOf(node) === 'notMet')
        .map((rule) => `Not met: ${rule.label.toLowerCase()}`);
      if (state.stateOf(node) === 'failing') why.unshift(stateWords.failing.label);
      return { item: { ...state.brief(node), title: withClause(state, node) }, why };
    });
}

/** Requirements with what satisfies and what verifies them, in reading order. */
function buildMatrix(state: ProjectState, { matrices, within }: ReportScope): ReportBody['matrix'] {
  const { of, verifies } = state.scheme.verification;
  const verify = state.linkKindIndex(verifies);
  const design = (['satisfies', 'refines'] as const).flatMap((role) => linkKindsOfRole(state.scheme, role).map(({ id }) => state.linkKindIndex(id)));
  const rows: ReportBody['matrix']['rows'] = [];
  for (const node of state.outline().nodes) {
    const item = state.items[node]!;
    if (!matrices.has(item.collectionId) || !within(node) || !(item.heading || of.kinds.includes(item.kind))) continue;
    const others = (kinds: number[]) =>
      state.graph
        .findLinks(node, 'in')
        .filter((link) => kinds.includes(state.graph.kind[link]!) && state.isPresent(state.graph.from[link]!))
        .map((link) => state.items[state.graph.from[link]!]!.reference);
    rows.push({
      reference: item.reference,
      title: withClause(state, node),
      heading: item.heading,
      state: state.stateOf(node),
      design: item.heading ? [] : others(design),
      tests: item.heading ? [] : others([verify]),
    });
  }
  return { title: 'Requirements, design and tests', rows };
}

/** Title of an item after the number of the clause that it came from. */
function withClause(state: ProjectState, node: number): string {
  return [state.clauseOf(node), state.items[node]!.title].filter(Boolean).join(' ');
}

function buildMoved(before: Readiness, now: Readiness): ReportBody['moved'] {
  const moved: ReportBody['moved'] = [];
  for (const state of verificationStates) {
    const was = before.states.find((one) => one.state === state)?.count ?? 0;
    const is = now.states.find((one) => one.state === state)?.count ?? 0;
    if (was !== is) moved.push({ label: `Requirements: ${stateWords[state].label.toLowerCase()}`, before: was, now: is });
  }
  for (const rule of now.rules) {
    const was = before.rules.find((one) => one.rule === rule.rule);
    if (was && was.counts.notMet !== rule.counts.notMet) moved.push({ label: `${rule.label}: not met`, before: was.counts.notMet, now: rule.counts.notMet });
  }
  for (const result of now.results) {
    const was = before.results.find((one) => one.id === result.id)?.count ?? 0;
    if (was !== result.count) moved.push({ label: result.label, before: was, now: result.count });
  }
  return moved;
}

/** One line per item: what became of it, however many steps it took. */
function buildChanged(state: ProjectState, touched: readonly Change[], within: ReportScope['within']): ReportBody['changed'] {
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
  const changed: ReportBody['changed'] = [];
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
