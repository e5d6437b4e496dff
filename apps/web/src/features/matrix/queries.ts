import { type BodyOf, readCells, readMatrix, type ReplyOf, saveMatrix } from '@coomb/contract';
import { unpackEntries } from '@coomb/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { call, fetchFile } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

export type MatrixBody = NonNullable<BodyOf<typeof readMatrix>>;

/** What stands between two scopes, unpacked; as of a moment of its own, where one is said. */
export function useMatrix(project: string, body: MatrixBody, asOf?: number | 'not asked') {
  return useQuery({
    queryKey: [...projectKey(project), 'matrix', body, asOf],
    enabled: asOf !== 'not asked',
    queryFn: async ({ signal }) => {
      const { entries, ...rest } = await call(readMatrix, { params: { project }, body, signal, ...(typeof asOf === 'number' && { asOf }) });
      return { ...rest, entries: unpackEntries(Uint8Array.from(atob(entries), (letter) => letter.charCodeAt(0))) };
    },
    placeholderData: keepPreviousData,
  });
}

type CellsBody = NonNullable<BodyOf<typeof readCells>>;
export type CellReply = ReplyOf<typeof readCells>[number];

export const fetchCells = (project: string, body: CellsBody) => call(readCells, { params: { project }, body });

/** Links and paths of one cell; asked for where one stands. */
export function useCell(project: string, cell: CellsBody['cells'][number] | undefined, marks: CellsBody['marks']) {
  return useQuery({
    queryKey: [...projectKey(project), 'matrix cell', cell, marks],
    queryFn: ({ signal }) => call(readCells, { params: { project }, body: { cells: [cell!], ...(marks && { marks }) }, signal }),
    enabled: cell !== undefined,
    staleTime: 5000,
  }).data?.[0];
}

export const saveTable = (project: string, format: 'xlsx' | 'csv', body: NonNullable<BodyOf<typeof saveMatrix>>) =>
  fetchFile(saveMatrix, { params: { project, format }, body });
