import { type RefObject, useEffect } from 'react';

/**
 * Keeps a view's keys alive: whenever the focus falls to nothing (a choice was made, a dialog or the sheet went away), it comes to rest on
 * the view's main element. It never takes the focus from anything that has it. A key that comes before that reaches the view all the same.
 */
export function useRestingFocus(target: RefObject<HTMLElement | SVGElement | null>): void {
  useEffect(() => void settle(target.current));
  useEffect(() => {
    const later = () => requestAnimationFrame(() => settle(target.current));
    const handOn = (event: KeyboardEvent) => {
      if (event.target !== document.body || !settle(target.current)) return;
      event.stopImmediatePropagation();
      const again = new KeyboardEvent('keydown', event);
      target.current!.dispatchEvent(again);
      if (again.defaultPrevented) event.preventDefault();
    };
    document.addEventListener('focusout', later);
    document.addEventListener('pointerup', later);
    document.addEventListener('dragend', later);
    document.addEventListener('keydown', handOn, true);
    return () => {
      document.removeEventListener('focusout', later);
      document.removeEventListener('pointerup', later);
      document.removeEventListener('dragend', later);
      document.removeEventListener('keydown', handOn, true);
    };
  }, [target]);
}

/** While a button of the pointer is down, the browser marks text or begins to drag: a focus that moves meanwhile ends that. */
let isPressed = false;
const follow = (event: Event) => (isPressed = event.type === 'pointerdown');
for (const type of ['pointerdown', 'pointerup', 'pointercancel', 'dragend']) window.addEventListener(type, follow, { capture: true, passive: true });

/** Whether the focus rested on nothing before and has come to the target. */
function settle(target: HTMLElement | SVGElement | null): boolean {
  if (isPressed) return false;
  const at = document.activeElement;
  if (at !== null && at !== document.body) return false;
  // What is closed may stay in the page, out of sight; it keeps no focus.
  if (document.querySelector('[role="dialog"]:not([hidden], [data-state="closed"])')) return false;
  target?.focus({ preventScroll: true });
  return target !== null && document.activeElement === target;
}
