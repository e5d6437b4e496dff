import { compareEntries, type PackedEntries, sayWay, type Scheme, WENT } from '@coomb/core';
import { useMemo } from 'react';
import { type MatrixBody, useMatrix } from './queries';

type Reply = NonNullable<ReturnType<typeof useMatrix>['data']>;

/** What stood in the matrix after an earlier change beside what stands there: what stayed, came and went. Nothing where it is not compared (0). */
export function useCompared(project: string, scheme: Scheme, body: MatrixBody, now: Reply | undefined, since: number, differences: 'all' | 'only') {
  const then = useMatrix(project, body, since > 0 ? since : 'not asked');
  const compared = useMemo(() => {
    if (since === 0 || !now || !then.data) return undefined;
    const momentOf = ({ entries, marks, usagePaths }: Reply) => ({ entries, usagePaths, ways: marks.map(({ way }) => sayWay(scheme, way)) });
    const found = compareEntries(momentOf(then.data), momentOf(now));
    return differences === 'only' ? { ...found, entries: withoutStayed(found.entries) } : found;
  }, [since, now, then.data, scheme, differences]);
  return { compared, error: since > 0 ? then.error : null, gone: differences === 'all' ? WENT : undefined };
}

function withoutStayed(entries: PackedEntries): PackedEntries {
  const kept = Array.from(entries.mark.keys()).filter((at) => entries.mark[at] !== 0);
  const ints = (list: Int32Array) => Int32Array.from(kept, (at) => list[at]!);
  const bytes = (list: Uint8Array) => Uint8Array.from(kept, (at) => list[at]!);
  return {
    ...{ row: ints(entries.row), column: ints(entries.column), mark: bytes(entries.mark), suspect: bytes(entries.suspect) },
    ...{ rowUse: ints(entries.rowUse), columnUse: ints(entries.columnUse) },
  };
}
