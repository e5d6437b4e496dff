import type { ReportBody } from '@coomb/contract';
import { buildReadiness } from '../check/readiness.js';
import type { Change } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import { readBlocks, reportBlocks, versionOf } from './blocks/index.js';
import type { ReportScope } from './report-scope.js';

/** Freezes the state of a project into a report. `last` is the report before, `touched` what changed since. */
export function buildReportBody(
  state: ProjectState,
  wish: Pick<ReportBody, 'title' | 'note' | 'at' | 'person' | 'colours'>,
  scope: ReportScope,
  last: { number: number; body: ReportBody } | undefined,
  touched: readonly Change[],
  blocks = reportBlocks,
): ReportBody {
  const before = last && readBlocks(last.body, blocks);
  const scene = {
    state,
    scope,
    readiness: buildReadiness(state, scope.within),
    touched,
    last: last && {
      number: last.number,
      at: last.body.at,
      dataOf: <D>({ type }: { type: string }) => before?.find(({ block }) => block.type === type)?.data as D | undefined,
    },
  };
  const written = blocks.flatMap((block) => {
    const data: unknown = block.build(scene);
    return data === undefined ? [] : [{ type: block.type, version: versionOf(block), data }];
  });
  return { project: state.name, ...wish, seq: state.seq, parts: scope.parts, blocks: written };
}
