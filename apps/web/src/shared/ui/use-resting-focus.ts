import { type RefObject, useEffect } from 'react';

/**
 * Keeps a view's keys alive: whenever the focus falls to nothing (a choice was made, a dialog or the sheet went away), it comes to rest on
 * the view's main element. It never takes the focus from anything that has it.
 */
export function useRestingFocus(target: RefObject<HTMLElement | SVGElement | null>): void {
  useEffect(() => settle(target.current));
  useEffect(() => {
    const later = () => requestAnimationFrame(() => settle(target.current));
    document.addEventListener('focusout', later);
    document.addEventListener('pointerup', later);
    return () => {
      document.removeEventListener('focusout', later);
      document.removeEventListener('pointerup', later);
    };
  }, [target]);
}

function settle(target: HTMLElement | SVGElement | null): void {
  const at = document.activeElement;
  if (at !== null && at !== document.body) return;
  // What is closed may stay in the page, out of sight; it keeps no focus.
  if (document.querySelector('[role="dialog"]:not([hidden], [data-state="closed"])')) return;
  target?.focus({ preventScroll: true });
}
