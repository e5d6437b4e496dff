import { describe, expect, it } from 'vitest';
import { listOf, matrixAddress, readMarks, readShown, swapSides, writeMarks } from './address';

const way = [
  { linkKind: 'derives', end: 'to' as const },
  { linkKind: 'verifies', end: 'to' as const },
];

describe('the address of a matrix', () => {
  it('keeps marks as they were chosen, and takes what is none for every kind of link', () => {
    expect(readMarks(writeMarks([way]))).toEqual([way]);
    expect([writeMarks([]), readMarks(''), readMarks('{'), readMarks('[[]]'), readMarks('[{"linkKind":"x"}]')]).toEqual(['', [], [], [], []]);
  });

  it('says what a side is grouped by, and which field', () => {
    expect([readShown(''), readShown('state'), readShown('field:priority'), readShown('coverage:a:b')]).toEqual([
      undefined,
      { sort: 'state' },
      { sort: 'field', of: 'priority' },
      { sort: 'coverage', of: 'a:b' },
    ]);
    expect(listOf('a,,b')).toEqual(['a', 'b']);
  });

  it('is turned round with all that belongs to a side, twice to where it was', () => {
    const now = matrixAddress.parse({ rows: 'a', columns: 'b', rowKinds: 'k', columnBelow: 's', rowsBy: 'state', marks: writeMarks([way]), show: 'rowGaps' });
    const turned = swapSides(now);
    expect(turned).toMatchObject({ rows: 'b', columns: 'a', columnKinds: 'k', rowKinds: '', rowBelow: 's', columnsBy: 'state', show: 'columnGaps' });
    expect(readMarks(turned.marks)).toEqual([
      [
        { linkKind: 'verifies', end: 'from' },
        { linkKind: 'derives', end: 'from' },
      ],
    ]);
    expect(swapSides(turned)).toEqual(now);
  });
});
