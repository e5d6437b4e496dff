import { useSyncExternalStore } from 'react';

const NARROW = '(max-width: 767px)';
const LOW = '(max-height: 559px)';

/** Whether the window is narrow or low: small screens, and large ones at a high zoom. */
export function useRoom(): { narrow: boolean; low: boolean } {
  return { narrow: useMedia(NARROW), low: useMedia(LOW) };
}

function useMedia(query: string): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => window.matchMedia(query).matches,
  );
}
