import { buildUrl, cancelJob, createItem, getJob, importFile, live, liveEvent, type LiveEvent, undo } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { addItem, makeProject, useServer } from '../testing/test-server.js';

describe('live changes', () => {
  const server = useServer();

  /** Follows a project as somebody, until stopped. */
  async function follow(project: string, person: string) {
    const events: LiveEvent[] = [];
    const stop = new AbortController();
    const response = await fetch(server.address + buildUrl(live.path, { project }, { person }), { signal: stop.signal });
    const reading = (async () => {
      let rest = '';
      for await (const chunk of response.body!.pipeThrough(new TextDecoderStream())) {
        const parts = (rest + chunk).split('\n\n');
        rest = parts.pop()!;
        for (const part of parts) {
          const data = /^data: (.*)$/m.exec(part)?.[1];
          if (data) events.push(liveEvent.parse(JSON.parse(data)));
        }
      }
    })().catch(() => {});
    const until = async (test: (event: LiveEvent) => boolean) => {
      for (let i = 0; i < 200; i++) {
        const found = events.find(test);
        if (found) return found;
        await new Promise((resolve) => setTimeout(resolve, 25));
      }
      throw new Error(`Nothing of the kind came; there came ${JSON.stringify(events)}`);
    };
    return {
      events,
      until,
      response,
      stop: async () => {
        stop.abort();
        await reading;
      },
    };
  }

  it('tells of a change by another as it happens, with who, what and which items', async () => {
    const { project, requirements } = await makeProject(server.client);
    const line = await follow(project, 'Ben Hale');
    expect(line.response.headers.get('content-type')).toContain('text/event-stream');
    const { seq } = (await line.until((event) => event.type === 'hello')) as { seq: number };
    const item = await addItem(server.client, project, requirements, 'Level');
    const change = await line.until((event) => event.type === 'change');
    expect(change).toMatchObject({ seq: seq + 1, person: 'Ada Wick', items: [item.id] });
    await server.client.call(undo, { params: { project } });
    await line.until((event) => event.type === 'change' && event.seq === seq + 2);
    await line.stop();
  });

  it('tells nothing of other projects, nor of what was refused', async () => {
    const [one, two] = [await makeProject(server.client, 'One'), await makeProject(server.client, 'Two')];
    const line = await follow(one.project, 'Ben Hale');
    await line.until((event) => event.type === 'hello');
    await addItem(server.client, two.project, two.requirements, 'Elsewhere');
    await expect(
      server.client.call(createItem, { params: { project: one.project }, body: { collection: two.requirements, title: 'Astray' } }),
    ).rejects.toThrow();
    await addItem(server.client, one.project, one.requirements, 'Here');
    await line.until((event) => event.type === 'change');
    expect(line.events.filter((event) => event.type === 'change')).toHaveLength(1);
    await line.stop();
  });

  it('says who is here, and who has gone', async () => {
    const { project } = await makeProject(server.client);
    const ada = await follow(project, 'Ada Wick');
    const ben = await follow(project, 'Ben Hale');
    await ada.until((event) => event.type === 'people' && event.people.length === 2);
    await ben.stop();
    await ada.until((event) => event.type === 'people' && ada.events.indexOf(event) > 1 && event.people.length === 1);
    expect(ada.events.filter((event) => event.type === 'people').at(-1)).toMatchObject({ type: 'people', people: [{ name: 'Ada Wick' }] });
    await ada.stop();
  });

  it('follows a job to its end, and a finished job cannot be cancelled into undoing anything', async () => {
    const { project } = await makeProject(server.client);
    const line = await follow(project, 'Ada Wick');
    await line.until((event) => event.type === 'hello');
    const entry = await server.client.upload(project, 'a.csv', Buffer.from('ID,Title\nA-1,One\nA-2,Two'));
    const { job } = await server.client.call(importFile, {
      params: { project, tray: entry.id },
      body: { collection: { name: 'A', prefix: 'A', holds: 'specification' } },
    });
    await line.until((event) => event.type === 'job' && event.state === 'done');
    const steps = line.events.flatMap((event) => (event.type === 'job' ? [event.progress] : []));
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
    await server.client.call(cancelJob, { params: { project, job } });
    expect(await server.client.call(getJob, { params: { project, job } })).toMatchObject({ state: 'done', outcome: { items: 2 } });
    await line.stop();
  });
});
