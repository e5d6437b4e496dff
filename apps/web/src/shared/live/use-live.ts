import { type Batch, buildUrl, listChanges, live, liveEvent, type LiveEvent } from '@coomb/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { forgetSeen } from '../api/seen';
import { personChanged, readPerson } from '../api/person';
import { type Here, lineOpened, setPeople, windowName } from './presence';

const GATHERED = 80;

/** Milliseconds until the next try: a second, then twice as long each time up to half a minute, and never for everybody at once. */
export function pauseAfter(failures: number, random = Math.random): number {
  return Math.min(30_000, 1000 * 2 ** failures) * (0.75 + random() / 2);
}

export interface Live {
  people: readonly Here[];
  connected: boolean;
  /** What others did while the line was down, newest first; empty once it was looked at. */
  missed: readonly Batch[];
  forgetMissed: () => void;
}

/** Told to the window when the line is open again: whatever waits for it goes on. */
export const lineIsOpen = 'coomb-line-open';

/** Follows a project live, once it is known to be there: whatever others change is fetched again at once. Tells who is here and whether the line holds. */
export function useLive(project: string, isThere = true): Live {
  const client = useQueryClient();
  const [people, setHere] = useState<readonly Here[]>([]);
  const [missed, setMissed] = useState<readonly Batch[]>([]);
  const [connected, setConnected] = useState(true);
  useEffect(() => {
    if (!isThere) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let seq = -1;
    let life: string | undefined;
    let source: EventSource | undefined;
    const refresh = () => {
      timer ??= setTimeout(() => {
        timer = undefined;
        void client.invalidateQueries({ queryKey: projectKey(project) });
      }, GATHERED);
    };
    const read = (event: LiveEvent) => {
      if (event.type === 'people') {
        setHere(event.people);
        setPeople(event.people);
      } else if (event.type === 'job') void client.invalidateQueries({ queryKey: [...projectKey(project), 'jobs'] });
      else if (event.type === 'change' || event.type === 'day') refresh();
      else if (life !== undefined && event.life !== life) {
        forgetSeen(project);
        void client.resetQueries({ queryKey: projectKey(project) });
      } else if (seq >= 0 && event.seq !== seq) {
        refresh();
        void fetchMissed(project, seq).then((more) => setMissed((before) => [...more, ...before]));
      }
      if ('life' in event) life = event.life;
      if ('seq' in event) seq = event.seq;
    };
    let again: ReturnType<typeof setTimeout> | undefined;
    let failures = 0;
    const open = () => {
      clearTimeout(again);
      source?.close();
      source = new EventSource(buildUrl(live.path, { project }, { person: readPerson(), window: windowName }));
      source.onopen = () => {
        failures = 0;
        setConnected(true);
        lineOpened();
        window.dispatchEvent(new Event(lineIsOpen));
      };
      // A browser gives up for good when it is answered otherwise than by a stream, as proxies do while a server restarts.
      source.onerror = () => {
        setConnected(false);
        source?.close();
        again = setTimeout(open, pauseAfter(failures++));
      };
      source.onmessage = (message) => {
        const parsed = liveEvent.safeParse(JSON.parse(message.data as string));
        if (parsed.success) read(parsed.data);
      };
    };
    const close = () => {
      clearTimeout(again);
      source?.close();
    };
    const reopen = (event: PageTransitionEvent) => event.persisted && open();
    open();
    // A page kept for Back would hold its line open, and a browser has six for one server.
    // The others see the name that somebody goes by now.
    window.addEventListener(personChanged, open);
    window.addEventListener('online', open);
    window.addEventListener('pagehide', close);
    window.addEventListener('pageshow', reopen);
    return () => {
      clearTimeout(timer);
      close();
      window.removeEventListener(personChanged, open);
      window.removeEventListener('online', open);
      window.removeEventListener('pagehide', close);
      window.removeEventListener('pageshow', reopen);
    };
  }, [client, project, isThere]);
  const forgetMissed = useCallback(() => setMissed([]), []);
  return { people, connected, missed, forgetMissed };
}

/** Changes after a number that others made. */
async function fetchMissed(project: string, after: number): Promise<Batch[]> {
  try {
    const me = readPerson();
    return (await call(listChanges, { params: { project }, query: {} })).filter((batch) => batch.seq > after && batch.person !== me);
  } catch {
    return [];
  }
}
