import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { findModelGroups, joinModels } from './join-models';

const file = (name: string, text: string) => new File([text], name);

describe('files that are handed in at once', () => {
  it('belong together where one names another, directly or over a third', () => {
    const texts = [
      { name: 'main.xmi', text: '<a href="parts.uml#x"/>' },
      { name: 'alone.xmi', text: '<b/>' },
      { name: 'parts.uml', text: '<c href="units%20of%20weir.uml#y"/>' },
      { name: 'units of weir.uml', text: '<d/>' },
    ];
    expect(findModelGroups(texts).map((group) => group.toSorted())).toEqual([[0, 2, 3]]);
  });

  it('go together as one archive, named after the one that leads to the others', async () => {
    const handed = await joinModels([file('parts.uml', '<c/>'), file('needs.csv', 'main.xmi#'), file('main.xmi', '<a href="parts.uml#x"/>')]);
    expect(handed.map(({ name }) => name)).toEqual(['main and 1 more.zip', 'needs.csv']);
    const parts = unzipSync(new Uint8Array(await handed[0]!.arrayBuffer()));
    expect(Object.fromEntries(Object.entries(parts).map(([name, bytes]) => [name, new TextDecoder().decode(bytes)]))).toEqual({
      'main.xmi': '<a href="parts.uml#x"/>',
      'parts.uml': '<c/>',
    });
  });

  it('stay as they are where none names another', async () => {
    const files = [file('a.xmi', '<a/>'), file('b.xmi', '<b/>')];
    expect(await joinModels(files)).toEqual(files);
  });
});
