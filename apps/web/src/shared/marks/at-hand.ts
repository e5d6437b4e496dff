import type { OutlineReply } from '@coomb/contract';
import { useEffect, useRef, useSyncExternalStore } from 'react';

/** Enough of an item to hold it over pages. */
export interface HeldItem {
  id: string;
  reference: string;
  title: string;
  kind: string;
}

const hands: { who: object; items: readonly HeldItem[] }[] = [];

const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** The first item at hand, followed. */
export function useFirstAtHand(): string | undefined {
  return useSyncExternalStore(subscribe, () => hands.at(-1)?.items[0]?.id);
}

/** Says which items a view has at hand: those that are chosen in it, else the marked one. Whoever said so last is asked. */
export function useAtHand(items: readonly HeldItem[]): void {
  const who = useRef({});
  const says = items.map(({ id }) => id).join();
  const now = useRef(items);
  now.current = items;
  useEffect(() => {
    const own = who.current;
    const leave = () => {
      const at = hands.findIndex((hand) => hand.who === own);
      if (at >= 0) hands.splice(at, 1);
    };
    leave();
    if (says) hands.push({ who: own, items: now.current });
    tell();
    return () => {
      leave();
      tell();
    };
  }, [says]);
}

/** The items at hand now; none where nothing is marked. */
export function readAtHand(): readonly HeldItem[] {
  return hands.at(-1)?.items ?? [];
}

/** A row of the outline as it is held. */
export const heldItem = (outline: OutlineReply, row: number): HeldItem => ({
  id: outline.id[row]!,
  reference: outline.reference[row]!,
  title: outline.title[row]!,
  kind: outline.kinds[outline.kind[row]!] ?? '',
});
