import { type RefObject, useEffect, useRef } from 'react';

/** Puts the caret into a field after a menu that opened it has closed and given back the focus to its button. */
export function useFocusSoon<E extends HTMLElement>(): RefObject<E | null> {
  const field = useRef<E>(null);
  useEffect(() => {
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => field.current?.focus());
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  return field;
}
