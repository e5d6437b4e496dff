import { useMemo, useSyncExternalStore } from 'react';

/** How far the matrix is scrolled, in pixels. Kept beside React: what does not move with it is not drawn anew while one scrolls. */
export class ScrollPlace {
  left = 0;
  top = 0;
  private readonly listeners = new Set<() => void>();

  moveTo(left: number, top: number): void {
    [this.left, this.top] = [left, top];
    for (const listener of this.listeners) listener();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}

export const useScrollPlace = (): ScrollPlace => useMemo(() => new ScrollPlace(), []);

/** Draws anew with every move along one side. */
export const useScrolled = (place: ScrollPlace, side: 'left' | 'top'): number => useSyncExternalStore(place.subscribe, () => place[side]);
