import type { OutlineReply } from '@coomb/contract';
import { type AllowedLink, findAllowedLinks, type FoldedAxis, phraseAt, type WayStep } from '@coomb/core';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { notify, notifyError } from '../../shared/ui/notices';
import { settledKind } from '../linking/remembered-kinds';
import { useMakeLink, useUnlink } from '../linking/queries';
import { holdsAt, isItemLine, type MatrixSides } from './matrix-sides';
import { type CellReply, fetchCells } from './queries';

interface Shown {
  outline: OutlineReply;
  sides: MatrixSides;
  rows: FoldedAxis;
  columns: FoldedAxis;
  /** Ways that are marked; none where every kind of link is. */
  marks: readonly WayStep[][];
}

export interface AskedKind {
  row: number;
  column: number;
  allowed: AllowedLink[];
  kinds: [string, string];
}

/** Links and unlinks the two items of a cell. Which links stand there is asked when it is done. */
export function useCellLinks({ outline, sides, rows, columns, marks }: Shown) {
  const project = useProject();
  const { scheme } = project;
  const make = useMakeLink(project.id);
  const unlink = useUnlink(project.id);
  const [asking, setAsking] = useState<AskedKind>();
  const itemsAt = (row: number, column: number) => [sides.row.rows[rows.lines[row]!]!, sides.column.rows[columns.lines[column]!]!] as const;
  const isMarked = (linkKind: string, end: 'from' | 'to') =>
    marks.length === 0 || marks.some((way) => way.length === 1 && way[0]!.linkKind === linkKind && way[0]!.end === end);

  /** Links between the items of two lines, folded or not, of the marked kinds, by where they hold. */
  const linksOf = async (cells: readonly { row: number; column: number }[]) => {
    const pairs = cells.map(({ row, column }) => ({ row: outline.id[sides.row.rows[row]!]!, column: outline.id[sides.column.rows[column]!]! }));
    const found: { here: CellReply['links']; everywhere: CellReply['links'] } = { here: [], everywhere: [] };
    const replies = await fetchCells(project.id, { cells: pairs });
    replies.forEach(({ links }, at) => {
      const { row, column } = cells[at]!;
      for (const link of links) {
        if (!isMarked(link.linkKind, link.reversed ? 'to' : 'from')) continue;
        const ends = [holdsAt(sides.row, row, link.rowUse ?? undefined), holdsAt(sides.column, column, link.columnUse ?? undefined)];
        if (ends.includes('elsewhere')) continue;
        found[ends.includes('everywhere') ? 'everywhere' : 'here'].push(link);
      }
    });
    return found;
  };

  const create = (row: number, column: number, { linkKind, reversed }: AllowedLink) => {
    setAsking(undefined);
    const [a, b] = itemsAt(row, column);
    const [from, to] = reversed ? [b, a] : [a, b];
    const [rowUse, columnUse] = [sides.row.uses.get(rows.lines[row]!), sides.column.uses.get(columns.lines[column]!)];
    const [fromUse, toUse] = reversed ? [columnUse, rowUse] : [rowUse, columnUse];
    const inUse = { ...(fromUse && { fromUsage: [...fromUse.path] }), ...(toUse && { toUsage: [...toUse.path] }) };
    const place = rowUse ?? columnUse;
    make.mutate([{ linkKind: linkKind.id, from: outline.id[from]!, to: outline.id[to]!, ...inUse }], {
      onSuccess: () =>
        notify(`${outline.reference[a]} ${phraseAt(linkKind, reversed ? 'to' : 'from')} ${outline.reference[b]}${place ? `, only as in ${place.says}` : ''}`),
    });
  };

  const toggle = async (row: number, column: number) => {
    const [rowLine, columnLine] = [rows.lines[row]!, columns.lines[column]!];
    const isItem = isItemLine(outline, sides.row, rowLine) && isItemLine(outline, sides.column, columnLine);
    if (rows.size[row]! > 1 || columns.size[column]! > 1 || !isItem) return notify('Unfold to single items to link them.', 'info');
    const [a, b] = itemsAt(row, column);
    const { here, everywhere } = await linksOf([{ row: rowLine, column: columnLine }]);
    if (here.length > 0)
      return unlink.mutate(
        here.map((link) => link.id),
        { onSuccess: () => notify(`${outline.reference[a]} and ${outline.reference[b]} are no longer linked. Undo brings it back.`) },
      );
    if (everywhere.length > 0) return notify('This link holds in every use. Remove it in the line of the item itself.', 'info');
    const kindAt = (item: number) => scheme.kinds[outline.kind[item]!]!.id;
    const possible = findAllowedLinks(scheme, kindAt(a), kindAt(b));
    const allowed = possible.filter(({ linkKind, reversed }) => isMarked(linkKind.id, reversed ? 'to' : 'from'));
    if (allowed.length === 0) {
      const why = possible.length > 0 ? 'What is marked is not a link of its own: choose every kind of link, or mark' : undefined;
      const names = possible.map(({ linkKind, reversed }) => `“${phraseAt(linkKind, reversed ? 'to' : 'from')}”`).join(' or ');
      return notify(why ? `${why} ${names}.` : `No link kind joins ${outline.reference[a]} with ${outline.reference[b]}.`, 'info');
    }
    const settled = settledKind(project.id, kindAt(a), kindAt(b), allowed);
    if (settled) create(row, column, settled);
    else setAsking({ row, column, allowed, kinds: [kindAt(a), kindAt(b)] });
  };
  const toggleCell = (row: number, column: number) => void toggle(row, column).catch(notifyError);
  return { toggle: toggleCell, linksOf, create, asking, stopAsking: () => setAsking(undefined) };
}
