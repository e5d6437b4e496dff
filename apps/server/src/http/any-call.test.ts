import { type AnyEndpoint, buildUrl, endpoints, findLinkIds, getOutline, getProject, keepView, listDrawings } from '@coomb/contract';
import { shows } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { makeChance, RandomCalls } from '../testing/random-call.js';
import { addItem, addLink, makeProject, useServer } from '../testing/test-server.js';

const CALLS = 700;
/** Streams without end, files that come as parts of a form, and what ends the server or copies all of it. */
const LEFT_OUT = new Set(['live', 'getBackup']);

describe('any call that fits the contract', () => {
  const server = useServer();

  async function makeKnown() {
    const { project, requirements, design, tests } = await makeProject(server.client);
    const params = { project };
    for (let count = 0; count < 12; count++) {
      const level = await addItem(server.client, project, requirements, `Level ${count}`, { html: `<p>The pool shall stay below ${count} m.</p>` });
      const gate = await addItem(server.client, project, design, `Gate ${count}`);
      const test = await addItem(server.client, project, tests, `Fill to ${count} m`);
      await addLink(server.client, project, 'satisfies', gate, level);
      if (count % 2) await addLink(server.client, project, 'verifies', test, level);
    }
    const views = [
      { sort: 'lens', body: { lens: JSON.stringify({ conditions: [{ shown: { sort: 'title' }, test: 'says', values: ['1'] }] }) } },
      { sort: 'colourKey', body: { key: JSON.stringify({ shown: { sort: 'state' }, entries: [{ value: 'Open', fill: '#b3541e' }] }) } },
    ];
    const [lens, key] = await Promise.all(views.map((body) => server.client.call(keepView, { params, body: { ...body, name: body.sort } })));
    const { scheme, collections } = await server.client.call(getProject, { params });
    const { id: items, reference } = await server.client.call(getOutline, { params });
    const links = await server.client.call(findLinkIds, { params });
    const fields = [...scheme.kinds, ...scheme.linkKinds].flatMap((kind) => kind.fields ?? []).map(({ id }) => id);
    const homes = collections.map(({ id }) => id);
    const [kinds, linkKinds] = [scheme.kinds.map(({ id }) => id), scheme.linkKinds.map(({ id }) => id)];
    const named = (names: string, list: readonly unknown[]) => Object.fromEntries(names.split(' ').map((name) => [name, list]));
    return {
      project,
      known: {
        ...named('item items parent before after below from to left right row column within sections among other into pinned leftOut', items),
        ...named('link links', links),
        ...named('collection collections rows columns', homes),
        ...named('kind kinds', kinds),
        ...named('linkKind linkKinds', linkKinds),
        ...named('field fields shown.of rowsBy.of columnsBy.of', fields),
        ...named('shown.sort rowsBy.sort columnsBy.sort', [...shows.map(({ sort }) => sort), 'linkKind', 'linkStanding']),
        ...named('seq since moment', [1, 5, 20, 40]),
        ...{ project: [project], lens: [lens!.id], key: [key!.id], view: [lens!.id, key!.id], rule: scheme.rules.map(({ id }) => id), revision: [1, 2] },
        ...{ layer: scheme.layers.map(({ id }) => id), id: [...items, ...links, ...homes], words: [...reference, ...kinds, 'Level', 'Gate 3', 'Open'] },
      },
    };
  }

  it.each([11, 12, 13])('is answered as the contract says, or refused: never a fault of ours (%i)', async (seed) => {
    const { project, known } = await makeKnown();
    const chance = makeChance(seed);
    const calls = new RandomCalls(chance, known);
    const all = Object.entries(endpoints).filter(([name, { consumes }]) => !consumes && !LEFT_OUT.has(name));
    const faults: string[] = [];
    const answered = new Set<string>();
    for (let count = 0; count < CALLS; count++) {
      const [name, endpoint] = calls.pick(all);
      const { params, query, body } = calls.make(endpoint);
      // Without one of its names an address is another.
      if (Object.values(params).includes('')) continue;
      const asked = `${endpoint.method} ${buildUrl(endpoint.path, params, query)} ${JSON.stringify(body) ?? ''}`;
      const response = await fetch(`${server.address}${buildUrl(endpoint.path, params, query)}`, {
        method: endpoint.method,
        headers: { 'X-Coomb-Person': 'Ada Wick', ...(body !== undefined && { 'Content-Type': 'application/json' }) },
        ...(body !== undefined && { body: JSON.stringify(body) }),
      });
      const text = await response.text().catch((error) => String(error));
      if (response.status >= 500 || text === 'TypeError: terminated') faults.push(`${response.status}: ${asked}`);
      else if (response.ok) {
        answered.add(name);
        const wrong = findWrong(endpoint, text);
        if (wrong) faults.push(`${wrong}: ${asked}`);
      }
      // Whatever was done: the project can still be read.
      if (count % 100 === 99) await server.client.call(getOutline, { params: { project } });
    }
    expect(faults).toEqual([]);
    // Else it would say nothing: most are answered at least once.
    expect(answered.size).toBeGreaterThan(all.length / 3);
    await server.client.call(listDrawings, { params: { project } });
  });

  function findWrong(endpoint: AnyEndpoint, text: string): string | undefined {
    if (endpoint.produces) return undefined;
    const read = endpoint.reply.safeParse(text === '' ? undefined : JSON.parse(text));
    return read.success ? undefined : `Its answer does not fit: ${read.error.issues[0]!.path.join('.')} ${read.error.issues[0]!.message}`;
  }
});
