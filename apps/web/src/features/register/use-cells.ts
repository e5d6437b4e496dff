import type { RegisterRow, RegisterValue, WrittenCell } from '@coomb/contract';
import { figure } from '@coomb/core';
import { useState } from 'react';
import { notify } from '../../shared/ui/notices';
import { useWriteCells } from './queries';

/** A cell that is to be written: which, and what with. */
export interface Write {
  row: RegisterRow;
  /** How its column is edited, as the register says it: "title", "field:priority", "links:to:verifies". */
  field: string;
  text: string;
}

/** What a cell refused, until it is written anew. */
export interface Refusal {
  says: string;
  text: string;
}

/** A value as it stands in a cell, and as spreadsheets take it. */
export const textOf = (value: RegisterValue): string =>
  value === null ? '' : Array.isArray(value) ? value.join(', ') : typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);

/** A cell of a use is another than that of its item. */
export const keyOfCell = ({ item, use }: Pick<RegisterRow, 'item' | 'use'>, field: string) => `${use?.join(' ') ?? item.id} ${field}`;

function columnOf(field: string): WrittenCell['column'] {
  const [sort, ...rest] = field.split(':');
  if (sort === 'title') return { sort: 'title' };
  if (sort === 'field') return { sort: 'field', field: rest.join(':') };
  return { sort: 'links', end: rest[0] === 'from' ? 'from' : 'to', linkKind: rest.slice(1).join(':') };
}

/** Writes cells, all that are given at once as one undo, and keeps what was refused beside the cell that it was meant for. */
export function useCells(project: string) {
  const [refused, setRefused] = useState<ReadonlyMap<string, Refusal>>(new Map());
  const mutation = useWriteCells(project);
  const write = (writes: readonly Write[]) => {
    if (writes.length === 0) return;
    mutation.mutate(
      {
        cells: writes.map(({ row, field, text }) => ({ item: row.item.id, ...(row.use && { use: row.use }), column: columnOf(field), text })),
        dryRun: false,
        skipRefused: true,
      },
      {
        onSuccess: ({ changed, refused: told }) => {
          setRefused((before) => {
            const next = new Map(before);
            for (const { row, field } of writes) next.delete(keyOfCell(row, field));
            for (const { cell, says } of told) {
              const { row, field, text } = writes[cell]!;
              next.set(keyOfCell(row, field), { says, text });
            }
            return next;
          });
          if (writes.length > 1 || told.length > 0)
            notify(
              `${figure(changed)} written${told.length > 0 ? `, ${figure(told.length)} refused: the reason stands on the cell` : ''}. Undo takes all of it back.`,
              told.length > 0 ? 'info' : undefined,
            );
        },
      },
    );
  };
  return { write, refused, busy: mutation.isPending };
}
