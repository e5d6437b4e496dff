import type { DragEvent as ReactDragEvent } from 'react';
import { useEffect, useRef } from 'react';

/** What is dragged, by its reference, in a form of our own: other programs get the reference as text. */
const TYPE = 'application/x-coomb-reference';
const LIT = 'data-drop';

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

/** The item under a point: what its element says, else what the row that it stands in is about. */
function findTarget(event: DragEvent): { reference: string; element: Element } | undefined {
  const hit = event.target as Element | null;
  if (!hit?.closest) return undefined;
  for (const [element, find] of finders) {
    if (!element.contains(hit)) continue;
    const reference = find(event.clientX, event.clientY);
    return reference ? { reference, element } : undefined;
  }
  const own = hit.closest('[data-reference]');
  if (own) return { reference: own.getAttribute('data-reference')!, element: own.closest('[role="option"], [role="row"]') ?? own };
  const row = hit.closest('[role="option"], [role="row"], [data-item-row]');
  const inside = row?.querySelector('[data-reference]');
  return row && inside ? { reference: inside.getAttribute('data-reference')!, element: row } : undefined;
}

/** Takes an item that is dropped on another, wherever in the window both stand. */
export function useDropAnywhere(onDrop: (dragged: string, target: string) => void): void {
  const now = useRef(onDrop);
  now.current = onDrop;
  useEffect(() => {
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
      const target = findTarget(event);
      light(target?.element);
      if (!target) return;
      event.preventDefault();
      event.dataTransfer!.dropEffect = 'link';
    };
    const drop = (event: DragEvent) => {
      if (!isOurs(event)) return;
      const [dragged, target] = [event.dataTransfer!.getData(TYPE), findTarget(event)];
      light(undefined);
      event.preventDefault();
      event.stopPropagation();
      if (target && dragged && target.reference !== dragged) now.current(dragged, target.reference);
    };
    const end = () => light(undefined);
    window.addEventListener('dragover', over, true);
    window.addEventListener('drop', drop, true);
    window.addEventListener('dragend', end, true);
    return () => {
      end();
      window.removeEventListener('dragover', over, true);
      window.removeEventListener('drop', drop, true);
      window.removeEventListener('dragend', end, true);
    };
  }, []);
}
