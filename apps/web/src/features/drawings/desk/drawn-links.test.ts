import type { Drawing, LinkColumnsReply, OutlineReply } from '@coomb/contract';
import { defaultScheme } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { findDrawnLinks } from './drawn-links';

const kindAt = (id: string) => defaultScheme.linkKinds.findIndex((kind) => kind.id === id);
const outline = { id: ['gate', 'drive', 'wish', 'picture'], node: [10, 11, 12, 13] } as unknown as OutlineReply;
const drawing = { id: 'd', item: { id: 'picture' }, shapes: [{ item: 'gate' }, { item: 'drive' }, { item: 'drive' }, { item: null }] } as unknown as Drawing;
const links = (rows: [from: number, to: number, kind: string, usage?: number][]): LinkColumnsReply => ({
  ...{ seq: 1, life: '', usages: ['Site › Gate'], usagePaths: [['site', 'gate']] },
  id: rows.map((_, at) => `l${at}`),
  from: rows.map(([from]) => from),
  to: rows.map(([, to]) => to),
  kind: rows.map(([, , kind]) => kindAt(kind)),
  suspect: rows.map(() => 0),
  fromUsage: rows.map(([, , , usage]) => usage ?? -1),
  toUsage: rows.map(() => -1),
});

describe('links where things are drawn', () => {
  const drawn = findDrawnLinks(
    defaultScheme,
    outline,
    drawing,
    links([
      [11, 12, 'satisfies', 0],
      [10, 11, 'depends'],
      [11, 10, 'typed'],
      [13, 12, 'shows'],
    ]),
  );

  it('are counted on every shape that shows the item, structure aside', () => {
    expect([...drawn.counts]).toEqual([
      [1, 2],
      [2, 2],
      [0, 1],
    ]);
    expect(drawn.shapesOf.get(1)).toEqual([1, 2]);
    expect(drawn.rowOf).toEqual([0, 1, 1, -1]);
  });

  it('read from either end, with the use that they hold in', () => {
    expect(drawn.of.get(1)).toEqual([
      { id: 'l0', other: 2, phrase: 'satisfies', suspect: false, usage: 'Site › Gate', usagePath: ['site', 'gate'] },
      { id: 'l1', other: 0, phrase: 'is needed by', suspect: false, usage: null },
    ]);
    expect(drawn.of.get(0)).toMatchObject([{ other: 1, phrase: 'depends on' }]);
  });

  it('may be those of the whole drawing', () => expect(drawn.of.get(3)).toMatchObject([{ id: 'l3', other: 2, phrase: 'shows' }]));

  it('are none while they are on their way', () => expect(findDrawnLinks(defaultScheme, outline, drawing, undefined).counts.size).toBe(0));
});
