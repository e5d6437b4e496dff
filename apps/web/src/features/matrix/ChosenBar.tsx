import { Button, Flex } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { counted, endOfLine, figure, type FoldedAxis, type FoldedCells } from '@coomb/core';
import { useEffect, useMemo, useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import type { HeldItem } from '../../shared/marks/at-hand';
import { heldItem } from '../../shared/marks/at-hand';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { notify, notifyError } from '../../shared/ui/notices';
import { ReasonDialog } from '../acting/dialogs';
import { useConfirm } from '../acting/queries';
import { ChangeLinksDialog } from '../linking/ChangeLinksDialog';
import { JoinDialog } from '../linking/JoinDialog';
import { useUnlink } from '../linking/queries';
import type { CellRange } from './use-matrix-cursor';
import { isItemLine, type MatrixSide, type MatrixSides } from './matrix-sides';
import type { CellReply } from './queries';

/** Cells that are looked at one by one: their links are asked for. */
const MOST_CELLS = 5000;

interface Props {
  outline: OutlineReply;
  sides: MatrixSides;
  axes: [FoldedAxis, FoldedAxis];
  cells: FoldedCells;
  range: CellRange;
  linksOf: (cells: readonly { row: number; column: number }[]) => Promise<{ here: CellReply['links'] }>;
  /** What a key asks for: to link all of them, or to take their links away. */
  wish: 'join' | 'remove' | undefined;
  onWish: (wish: 'join' | 'remove' | undefined) => void;
  onDone: () => void;
}

/** Links, confirms or unlinks all cells of a rectangle: what will be done stands there before it is. */
export function ChosenBar({ outline, sides, axes, cells, range, linksOf, wish, onWish, onDone }: Props) {
  const project = useProject();
  const [found, setFound] = useState<{ to: 'remove' | 'confirm' | 'change'; links: CellReply['links']; cells: number }>();
  const confirm = useConfirm(project.id);
  const unlink = useUnlink(project.id);
  const [rows, columns] = axes;
  // Reckoned once for a rectangle: it may be all of a large matrix.
  const { top, bottom, left: from, right: to } = range;
  const [left, right] = useMemo(
    () => [itemsIn(outline, sides.row, rows, top, bottom), itemsIn(outline, sides.column, columns, from, to)],
    [outline, sides, rows, columns, top, bottom, from, to],
  );
  const [entries, suspects] = useMemo(() => {
    let [count, suspect] = [0, 0];
    for (let row = top; row <= bottom; row++) {
      const line = cells.row(row);
      line.columns.forEach((column, at) => {
        if (column < from || column > to) return;
        count += line.counts[at]!;
        suspect += line.suspects[at]!;
      });
    }
    return [count, suspect];
  }, [cells, top, bottom, from, to]);
  const size = `${range.bottom - range.top + 1} × ${range.right - range.left + 1} cells`;
  const find = (to: 'remove' | 'confirm' | 'change') => {
    const filled = linkedPairs(sides, axes, range);
    if (filled.length > MOST_CELLS) return notify(`${figure(filled.length)} linked pairs are too many at once; at most ${figure(MOST_CELLS)} are.`, 'info');
    linksOf(filled).then(({ here }) => {
      const links = to === 'confirm' ? here.filter(({ suspect }) => suspect) : here;
      if (links.length === 0) notify(to === 'confirm' ? 'None of these links is suspect.' : 'No link of its own stands in these cells.', 'info');
      else setFound({ to, links, cells: filled.length });
    }, notifyError);
  };
  useEffect(() => {
    if (wish !== 'remove') return;
    onWish(undefined);
    find('remove');
  });
  const close = () => {
    setFound(undefined);
    onWish(undefined);
    onDone();
  };
  const end = (says: string) => {
    notify(says);
    close();
  };
  const ids = found?.links.map(({ id }) => id) ?? [];
  return (
    <Flex align="center" gap="1.5" fontSize="13px" color="fg" role="group" aria-label="The cells that are chosen">
      <span>
        {size}: {counted(entries, 'mark')}
        {suspects > 0 && `, ${figure(suspects)} suspect`}
      </span>
      <Button
        size="2xs"
        variant="outline"
        disabled={left.length === 0 || right.length === 0}
        title="Link each row with each column (Enter)"
        onClick={() => onWish('join')}
      >
        Link…
      </Button>
      <Button size="2xs" variant="outline" disabled={suspects === 0} onClick={() => find('confirm')}>
        Confirm…
      </Button>
      <Button size="2xs" variant="outline" disabled={entries === 0} onClick={() => find('change')}>
        Change…
      </Button>
      <Button size="2xs" variant="outline" disabled={entries === 0} title="Take their links away (Delete)" onClick={() => find('remove')}>
        Remove…
      </Button>
      {wish === 'join' && left.length > 0 && right.length > 0 && <JoinDialog left={left} right={right} onClose={() => onWish(undefined)} onDone={close} />}
      {found?.to === 'remove' && (
        <AskDialog
          title={`Take ${counted(ids.length, 'link')} away`}
          says={`They stand in ${counted(found.cells, 'pair')} of items in ${size}. Undo brings all of them back.`}
          verb={`Remove ${counted(ids.length, 'link')}`}
          busy={unlink.isPending}
          onDo={() => unlink.mutate(ids, { onSuccess: () => end(`${counted(ids.length, 'link')} removed. Undo brings them back.`) })}
          onClose={() => setFound(undefined)}
        />
      )}
      {found?.to === 'confirm' && (
        <ReasonDialog
          title={`${counted(ids.length, 'suspect link')} hold`}
          says="They will be confirmed by you against what both ends say now. Should a text have moved on meanwhile, none of them is."
          verb={`Confirm ${counted(ids.length, 'link')}`}
          busy={confirm.isPending}
          onDo={(reason) => confirm.mutate({ links: ids, reason }, { onSuccess: () => end(`Confirmed: ${counted(ids.length, 'link')}.`) })}
          onClose={() => setFound(undefined)}
        />
      )}
      {found?.to === 'change' && <ChangeLinksDialog project={project} links={ids} onClose={() => setFound(undefined)} onDone={close} />}
    </Flex>
  );
}

/** Items that stand alone in lines, from one to another; no more than a dialog can link with others. */
function itemsIn(outline: OutlineReply, side: MatrixSide, axis: FoldedAxis, from: number, to: number): HeldItem[] {
  const items = new Set<number>();
  for (let line = from; line <= to && items.size <= MOST_CELLS; line++)
    if (axis.size[line] === 1 && isItemLine(outline, side, axis.lines[line]!)) items.add(side.rows[axis.lines[line]!]!);
  return [...items].map((row) => heldItem(outline, row));
}

/** Pairs of single lines, folded or not, that a rectangle holds anything of. */
function linkedPairs(
  sides: MatrixSides,
  [rows, columns]: [FoldedAxis, FoldedAxis],
  { top, bottom, left, right }: CellRange,
): { row: number; column: number }[] {
  const [from, to] = [columns.lines[left]!, endOfLine(columns, right)];
  const { row, column } = sides.cells.entries;
  const found = new Map<string, { row: number; column: number }>();
  for (const entry of sides.cells.entriesOf(rows.lines[top]!, endOfLine(rows, bottom)))
    if (column[entry]! >= from && column[entry]! < to) found.set(`${row[entry]} ${column[entry]}`, { row: row[entry]!, column: column[entry]! });
  return [...found.values()];
}
