import { describe, expect, it } from 'vitest';
import { pathThrough } from './use-in-use';

describe('the use that an item is shown in', () => {
  it('is the way down to it on a path that may go on', () => {
    expect(pathThrough('drive', 'weir,gate,drive,motor')).toEqual(['weir', 'gate', 'drive']);
    expect(pathThrough('drive', 'weir,gate,drive')).toEqual(['weir', 'gate', 'drive']);
  });

  it('is none where the path does not lead through it, or begins with it', () => {
    expect(pathThrough('lock', 'weir,gate,drive')).toBeUndefined();
    expect(pathThrough('weir', 'weir,gate,drive')).toBeUndefined();
    expect(pathThrough('weir', null)).toBeUndefined();
  });
});
