import { useEffect } from 'react';

/** What is shown, outermost first: a view, and an item at its side before it. */
const shown: { text: string }[] = [];
let place = '';

function write(): void {
  document.title = [shown.at(-1)?.text, place, 'Coomb'].filter(Boolean).join(' · ');
}

/** Says what a view or an item is called in the title of the window, before the project: what came last is said. */
export function useWindowTitle(text: string): void {
  useEffect(() => {
    const mine = { text };
    shown.push(mine);
    write();
    return () => {
      shown.splice(shown.indexOf(mine), 1);
      write();
    };
  }, [text]);
}

/** Says the project that everything shown belongs to. */
export function useWindowPlace(name: string): void {
  useEffect(() => {
    place = name;
    write();
    return () => {
      place = '';
      write();
    };
  }, [name]);
}
