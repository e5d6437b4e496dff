import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { pauseAfter, useLive } from './use-live';

class FakeSource {
  static all: FakeSource[] = [];
  onopen?: () => void;
  onerror?: () => void;
  onmessage?: (message: { data: string }) => void;
  closed = false;
  constructor(readonly url: string) {
    FakeSource.all.push(this);
  }
  close() {
    this.closed = true;
  }
  say(event: object) {
    this.onmessage?.({ data: JSON.stringify(event) });
  }
}
const project = '01890000-0000-7000-8000-000000000001';

describe('the live line', () => {
  beforeEach(() => {
    FakeSource.all = [];
    vi.useFakeTimers();
    vi.stubGlobal('EventSource', FakeSource);
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it('is opened again after a refusal, with growing pauses, and catches up with what changed meanwhile', () => {
    const client = new QueryClient();
    const refresh = vi.spyOn(client, 'invalidateQueries');
    const { result, unmount } = renderHook(() => useLive(project), {
      wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
    });
    act(() => {
      FakeSource.all[0]!.onopen!();
      FakeSource.all[0]!.say({ type: 'hello', seq: 4, life: 'one' });
    });
    expect([result.current.connected, refresh.mock.calls.length]).toEqual([true, 0]);
    for (let failure = 0; failure < 6; failure++) {
      act(() => FakeSource.all.at(-1)!.onerror!());
      expect([result.current.connected, FakeSource.all.at(-1)!.closed]).toEqual([false, true]);
      act(() => void vi.advanceTimersByTime(45_000));
      expect(FakeSource.all).toHaveLength(failure + 2);
    }
    act(() => {
      FakeSource.all.at(-1)!.onopen!();
      FakeSource.all.at(-1)!.say({ type: 'hello', seq: 9, life: 'one' });
      vi.advanceTimersByTime(200);
    });
    expect([result.current.connected, refresh.mock.calls.length]).toEqual([true, 1]);
    unmount();
    act(() => void vi.advanceTimersByTime(100_000));
    expect(FakeSource.all).toHaveLength(7);
  });

  it('begins anew when a backup was restored under the page, and fetches again on another day', () => {
    const client = new QueryClient();
    const reset = vi.spyOn(client, 'resetQueries');
    const refresh = vi.spyOn(client, 'invalidateQueries');
    const { unmount } = renderHook(() => useLive(project), {
      wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
    });
    const say = (event: object) =>
      act(() => {
        FakeSource.all.at(-1)!.say(event);
        vi.advanceTimersByTime(200);
      });
    say({ type: 'hello', seq: 4, life: 'one' });
    say({ type: 'day', day: '2026-12-01' });
    expect([reset.mock.calls.length, refresh.mock.calls.length]).toEqual([0, 1]);
    say({ type: 'hello', seq: 4, life: 'two' });
    expect([reset.mock.calls.length, refresh.mock.calls.length]).toEqual([1, 1]);
    say({ type: 'hello', seq: 4, life: 'two' });
    expect(reset.mock.calls).toHaveLength(1);
    unmount();
  });

  it('waits longer each time, up to half a minute, and not in step with others', () => {
    const pauses = Array.from({ length: 9 }, (_, failures) => pauseAfter(failures, () => 0.5));
    expect(pauses).toEqual([1000, 2000, 4000, 8000, 16_000, 30_000, 30_000, 30_000, 30_000]);
    expect([pauseAfter(0, () => 0), pauseAfter(0, () => 1)]).toEqual([750, 1250]);
  });
});
