import { describe, expect, it } from 'vitest';
import type { SourceBlock } from './document.js';
import { countTracked, settleChanges } from './settle-changes.js';

const tracked = { text: 'before', html: 'before', marked: '<del>before</del><ins>after</ins>' };
const blocks: SourceBlock[] = [
  { type: 'paragraph', at: 1, level: 0, text: 'after', html: 'after', tracked },
  { type: 'paragraph', at: 2, level: 1, text: 'same', html: 'same' },
  {
    type: 'table',
    at: 1,
    rows: [
      [
        { text: 'after', html: 'after', span: 2, tracked },
        { text: 'x', html: 'x', span: 1 },
      ],
    ],
  },
];
const textsOf = (list: readonly SourceBlock[]) =>
  list.flatMap((block) => (block.type === 'table' ? block.rows.flatMap((row) => row.map((cell) => cell.text)) : [block.text]));

describe('tracked changes', () => {
  it('are accepted as they stand, without a copy', () => {
    expect(settleChanges(blocks, 'accepted')).toBe(blocks);
  });

  it('are taken back in paragraphs and cells; the rest stays', () => {
    const settled = settleChanges(blocks, 'rejected');
    expect(textsOf(settled)).toEqual(['before', 'same', 'before', 'x']);
    expect(settled[2]).toMatchObject({ at: 1, rows: [[{ span: 2 }, {}]] });
    expect(textsOf(blocks)).toEqual(['after', 'same', 'after', 'x']);
  });

  it('are counted by place', () => {
    expect(countTracked(blocks)).toBe(2);
    expect(countTracked(blocks.slice(1, 2))).toBe(0);
  });
});
