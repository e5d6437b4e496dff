import { useEffect } from 'react';
import type { View } from '../shared/view';

/** Loads views that were not opened yet while nothing else is to be done, one after the other, so that they open at once. */
export function usePreloaded(views: readonly View[], isReady: boolean): void {
  useEffect(() => {
    if (!isReady || !('requestIdleCallback' in window)) return;
    const left = [...views];
    let request = 0;
    const next = () => {
      const view = left.shift();
      if (!view) return;
      // A view that cannot be loaded now says so when it is opened.
      void view
        .load()
        .catch(() => undefined)
        .then(() => (request = requestIdleCallback(next)));
    };
    request = requestIdleCallback(next, { timeout: 5000 });
    return () => {
      left.length = 0;
      cancelIdleCallback(request);
    };
  }, [views, isReady]);
}
