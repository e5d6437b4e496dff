import { useCallback, useRef } from 'react';

/** The same function for as long as it is used, which does what the newest one would: what is drawn from it need not be drawn anew. For events, not for drawing. */
export function useStable<Given extends unknown[], Result>(run: (...given: Given) => Result): (...given: Given) => Result {
  const now = useRef(run);
  now.current = run;
  return useCallback((...given: Given) => now.current(...given), []);
}
