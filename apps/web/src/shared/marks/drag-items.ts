import type { DragEvent as ReactDragEvent } from 'react';
import { useEffect, useRef } from 'react';

/** What is dragged, by its reference, in a form of our own: other programs get the reference as text. */
const TYPE = 'application/x-coomb-reference';
const LIT = 'data-drop';
/** Marks an element that takes what is dropped on it by itself, such as a cell of links: it hears of it by this event. */
export const TAKES = 'data-takes';
const TAKEN = 'coomb-taken';

/** What lies under a point of what draws its items itself; nothing where none does. */
type Finder = (x: number, y: number) => string | undefined;
const finders = new Map<Element, Finder>();

/** Lets an element that is hard to drag otherwise carry an item: spread over it. */
export const carries = (reference: string) => ({
  draggable: true,
  'data-reference': reference,
  onDragStart: (event: ReactDragEvent) => {
    event.stopPropagation();
    event.dataTransfer.setData(TYPE, reference);
    event.dataTransfer.setData('text/plain', reference);
    event.dataTransfer.effectAllowed = 'link';
  },
});

/** Tells what lies where on something that draws its items itself, such as a drawing. */
export function useDropFinder(element: () => Element | null, find: Finder): void {
  const now = useRef(find);
  now.current = find;
  useEffect(() => {
    const own = element();
    if (!own) return;
    finders.set(own, (x, y) => now.current(x, y));
    return () => void finders.delete(own);
  });
}

/** The item at an element that was hit at a point: what its element says, else what the row that it stands in is about. */
function findTarget(hit: Element | null, x: number, y: number): { reference: string; element: Element; takes?: true } | undefined {
  if (!hit?.closest) return undefined;
  const taker = hit.closest(`[${TAKES}]`);
  if (taker) return { reference: '', element: taker, takes: true };
  for (const [element, find] of finders) {
    if (!element.contains(hit)) continue;
    const reference = find(x, y);
    return reference ? { reference, element } : undefined;
  }
  const own = hit.closest('[data-reference]');
  if (own) return { reference: own.getAttribute('data-reference')!, element: own.closest('[role="option"], [role="row"]') ?? own };
  const row = hit.closest('[role="option"], [role="row"], [data-item-row]');
  const inside = row?.querySelector('[data-reference]');
  return row && inside ? { reference: inside.getAttribute('data-reference')!, element: row } : undefined;
}

/** Hears of items that are dropped on what takes them, within an element. */
export function useTaken(element: React.RefObject<Element | null>, onTaken: (dragged: string, taker: Element) => void): void {
  const now = useRef(onTaken);
  now.current = onTaken;
  useEffect(() => {
    const own = element.current;
    const hear = (event: Event) => now.current((event as CustomEvent<string>).detail, event.target as Element);
    own?.addEventListener(TAKEN, hear);
    return () => own?.removeEventListener(TAKEN, hear);
  }, [element]);
}

const give = (taker: Element, dragged: string) => taker.dispatchEvent(new CustomEvent(TAKEN, { detail: dragged, bubbles: true }));

let takers: ((dragged: string, target: string) => void)[] = [];

/** For views that drag in a way of their own: lets go of an item at a point outside them. Says whether an item lay there. */
export function dropAt(dragged: string, x: number, y: number): boolean {
  // What follows the hand lies on top of what is under it.
  for (const hit of document.elementsFromPoint(x, y)) {
    const target = findTarget(hit, x, y);
    if (!target || target.reference === dragged) continue;
    if (target.takes) give(target.element, dragged);
    else takers.at(-1)?.(dragged, target.reference);
    return true;
  }
  return false;
}

/** Takes an item that is dropped on another, wherever in the window both stand. */
export function useDropAnywhere(onDrop: (dragged: string, target: string) => void): void {
  const now = useRef(onDrop);
  now.current = onDrop;
  useEffect(() => {
    const take = (dragged: string, target: string) => now.current(dragged, target);
    takers.push(take);
    let lit: Element | undefined;
    const light = (element: Element | undefined) => {
      if (lit === element) return;
      lit?.removeAttribute(LIT);
      element?.setAttribute(LIT, '');
      lit = element;
    };
    const isOurs = (event: DragEvent) => event.dataTransfer?.types.includes(TYPE) === true;
    const over = (event: DragEvent) => {
      if (!isOurs(event)) return;
      const target = findTarget(event.target as Element | null, event.clientX, event.clientY);
      light(target?.element);
      if (!target) return;
      event.preventDefault();
      event.dataTransfer!.dropEffect = 'link';
    };
    const drop = (event: DragEvent) => {
      if (!isOurs(event)) return;
      const [dragged, target] = [event.dataTransfer!.getData(TYPE), findTarget(event.target as Element | null, event.clientX, event.clientY)];
      light(undefined);
      event.preventDefault();
      event.stopPropagation();
      if (!target || !dragged || target.reference === dragged) return;
      if (target.takes) give(target.element, dragged);
      else now.current(dragged, target.reference);
    };
    const end = () => light(undefined);
    window.addEventListener('dragover', over, true);
    window.addEventListener('drop', drop, true);
    window.addEventListener('dragend', end, true);
    return () => {
      end();
      takers = takers.filter((one) => one !== take);
      window.removeEventListener('dragover', over, true);
      window.removeEventListener('drop', drop, true);
      window.removeEventListener('dragend', end, true);
    };
  }, []);
}
