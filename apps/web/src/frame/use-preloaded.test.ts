import { cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { View } from '../shared/view';
import { usePreloaded } from './use-preloaded';

describe('views that are loaded beforehand', () => {
  let idle: (() => void)[] = [];
  beforeEach(() => {
    idle = [];
    vi.stubGlobal('requestIdleCallback', (run: () => void) => idle.push(run));
    vi.stubGlobal('cancelIdleCallback', () => (idle = []));
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });
  const loaded: string[] = [];
  const view = (name: string, fails = false) =>
    ({
      name,
      load: async () => {
        loaded.push(name);
        if (fails) throw new Error('away');
        return () => null;
      },
    }) as unknown as View;
  const rest = async () => {
    const [run] = idle.splice(0, 1);
    run?.();
    await new Promise((done) => setTimeout(done));
  };

  it('come one after the other, each when nothing else is to be done, whether or not one is away', async () => {
    loaded.length = 0;
    const views = [view('a'), view('b', true), view('c')];
    const { rerender } = renderHook(({ ready }) => usePreloaded(views, ready), { initialProps: { ready: false } });
    expect(idle).toHaveLength(0);
    rerender({ ready: true });
    const seen: string[][] = [];
    for (let times = 0; times < 5; times++) {
      await rest();
      seen.push([...loaded]);
    }
    expect(seen).toEqual([['a'], ['a', 'b'], ['a', 'b', 'c'], ['a', 'b', 'c'], ['a', 'b', 'c']]);
  });

  it('come no more once the page is left', async () => {
    loaded.length = 0;
    const views = [view('a'), view('b')];
    const { unmount } = renderHook(() => usePreloaded(views, true));
    await rest();
    unmount();
    await rest();
    expect(loaded).toEqual(['a']);
  });
});
