import type { OutlineReply } from '@coomb/contract';
import { describe, expect, it } from 'vitest';
import { aProject } from '../../testing/page';
import { alignOutline } from './align-outline';

const kinds = aProject.scheme.kinds.map((kind) => kind.id);
const collections = aProject.collections.map((one) => one.id);
const outline = { kinds, collections, kind: [1, 11], collection: [0, 1] } as unknown as OutlineReply;

describe('an outline beside a project', () => {
  it('is left alone where both count alike', () => {
    expect(alignOutline(outline, aProject)).toBe(outline);
    expect(alignOutline(undefined, aProject)).toBeUndefined();
  });

  it('is counted anew where kinds or collections moved between the two answers', () => {
    const scheme = { ...aProject.scheme, kinds: [...aProject.scheme.kinds].reverse() };
    const moved = alignOutline(outline, { scheme, collections: [...aProject.collections].reverse() })!;
    expect(moved.kind.map((index) => scheme.kinds[index]!.id)).toEqual([kinds[1], kinds[11]]);
    expect(moved.collection).toEqual([1, 0]);
  });

  it('is none where it names what the project does not know yet', () => {
    expect(alignOutline({ ...outline, collections: ['new', ...collections], collection: [0, 1] }, aProject)).toBeUndefined();
  });
});
