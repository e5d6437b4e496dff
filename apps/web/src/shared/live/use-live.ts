import { buildUrl, live, liveEvent, type LiveEvent } from '@coomb/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { projectKey } from '../api/keys';
import { readPerson } from '../api/person';

const GATHERED = 80;

/** Follows a project live: whatever others change is fetched again at once. Tells who is here and whether the line holds. */
export function useLive(project: string): { people: string[]; connected: boolean } {
  const client = useQueryClient();
  const [people, setPeople] = useState<string[]>([]);
  const [connected, setConnected] = useState(true);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let seq = -1;
    let source: EventSource | undefined;
    const refresh = () => {
      timer ??= setTimeout(() => {
        timer = undefined;
        void client.invalidateQueries({ queryKey: projectKey(project) });
      }, GATHERED);
    };
    const read = (event: LiveEvent) => {
      if (event.type === 'people') setPeople(event.people);
      else if (event.type === 'job') void client.invalidateQueries({ queryKey: [...projectKey(project), 'jobs'] });
      else if (event.type === 'change') refresh();
      else if (seq >= 0 && event.seq !== seq) refresh();
      if ('seq' in event) seq = event.seq;
    };
    const open = () => {
      source = new EventSource(buildUrl(live.path, { project }, { person: readPerson() }));
      source.onopen = () => setConnected(true);
      source.onerror = () => setConnected(false);
      source.onmessage = (message) => {
        const parsed = liveEvent.safeParse(JSON.parse(message.data as string));
        if (parsed.success) read(parsed.data);
      };
    };
    const close = () => source?.close();
    const reopen = (event: PageTransitionEvent) => event.persisted && open();
    open();
    // A page kept for Back would hold its line open, and a browser has six for one server.
    window.addEventListener('pagehide', close);
    window.addEventListener('pageshow', reopen);
    return () => {
      clearTimeout(timer);
      close();
      window.removeEventListener('pagehide', close);
      window.removeEventListener('pageshow', reopen);
    };
  }, [client, project]);
  return { people, connected };
}
