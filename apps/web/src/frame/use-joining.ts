import { counted, findAllowedLinks, phraseAt, type Scheme } from '@coomb/core';
import { useCallback, useMemo, useState } from 'react';
import { useFindHeld, useMakeLink } from '../features/linking/queries';
import { settledKind } from '../features/linking/remembered-kinds';
import { useDropAnywhere } from '../shared/marks/drag-items';
import { type HeldItem, readAtHand } from '../shared/marks/at-hand';
import { type MarkSide, readMarks, toggleMarks, writeMarks } from '../shared/marks/marks';
import { notify, notifyError } from '../shared/ui/notices';
import { useKeys } from '../shared/ui/use-keys';

interface Joining {
  left: readonly HeldItem[];
  right: readonly HeldItem[];
}

/** Marking here, going anywhere, joining there: `.` marks on one side, `,` on the other, `;` links with what is at hand, I adds something related. */
export function useJoining(project: string, scheme: Scheme) {
  const make = useMakeLink(project);
  const [joining, setJoining] = useState<Joining>();
  const [adding, setAdding] = useState<HeldItem>();
  const join = useCallback(() => {
    const { first, second } = readMarks(project);
    if (first.length === 0 && second.length === 0) return notify('Mark an item with “.”, go to another, and press “;”.', 'info');
    const own = first.length > 0 ? first : second;
    const isOwn = new Set(own.map(({ id }) => id));
    const others = first.length > 0 && second.length > 0 ? second : readAtHand().filter(({ id }) => !isOwn.has(id));
    if (others.length === 0) return notify('Go to the item at the other end, and press “;” there.', 'info');
    setJoining({ left: own, right: others });
  }, [project]);
  const find = useFindHeld(project);
  const link = async (dragged: string, target: string) => {
    const [one, other] = await Promise.all([find(dragged), find(target)]);
    if (!one || !other) return notify('Only items can be linked; sections cannot.', 'info');
    // Who drags one of several that are chosen drags all of them.
    const atHand = readAtHand();
    const all = atHand.length > 1 && atHand.some(({ id }) => id === one.id) ? atHand.filter(({ id }) => id !== other.id) : [one];
    const settled = all.length === 1 ? settledKind(project, one.kind, other.kind, findAllowedLinks(scheme, one.kind, other.kind)) : undefined;
    if (!settled) return setJoining({ left: all, right: [other] });
    const { linkKind, reversed } = settled;
    const [from, to] = reversed ? [other, one] : [one, other];
    make.mutate([{ linkKind: linkKind.id, from: from.id, to: to.id }], {
      onSuccess: () => notify(`${one.reference} ${phraseAt(linkKind, reversed ? 'to' : 'from')} ${other.reference}`),
    });
  };
  useDropAnywhere((dragged, target) => void link(dragged, target).catch(notifyError));
  const keys = useMemo(() => {
    const mark = (side: MarkSide) => () => {
      const items = readAtHand();
      if (items.length === 0) return notify('There is no item at hand here that could be marked.', 'info');
      const marks = toggleMarks(readMarks(project), side, items);
      writeMarks(project, marks);
      const isMarked = marks[side].some(({ id }) => id === items[0]!.id);
      const what = items.length === 1 ? items[0]!.reference : counted(items.length, 'item');
      notify(isMarked ? `Marked: ${what}. Go anywhere, and press “;” to link.` : `No longer marked: ${what}.`);
    };
    return {
      '.': mark('first'),
      ',': mark('second'),
      ';': join,
      i: () => {
        const [item] = readAtHand();
        if (item) setAdding(item);
        else notify('There is no item at hand here to which something could be added.', 'info');
      },
    };
  }, [project, join]);
  useKeys(keys);
  return {
    joining,
    adding,
    join,
    leave: () => {
      setJoining(undefined);
      setAdding(undefined);
    },
    done: () => {
      setJoining(undefined);
      writeMarks(project, { first: [], second: [] });
    },
  };
}
