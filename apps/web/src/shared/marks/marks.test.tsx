import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { type HeldItem, readAtHand, useAtHand } from './at-hand';
import { readMarks, toggleMarks, writeMarks } from './marks';

const item = (id: string): HeldItem => ({ id, reference: id.toUpperCase(), title: id, kind: 'requirement' });
const say = ({ first, second }: { first: readonly HeldItem[]; second: readonly HeldItem[] }) => [
  first.map(({ id }) => id).join(),
  second.map(({ id }) => id).join(),
];

describe('marks', () => {
  it('come and go by one key, and an item stands on one side only', () => {
    let marks = toggleMarks({ first: [], second: [] }, 'first', [item('a'), item('b')]);
    expect(say(marks)).toEqual(['a,b', '']);
    marks = toggleMarks(marks, 'second', [item('b'), item('c')]);
    expect(say(marks)).toEqual(['a', 'b,c']);
    expect(say(toggleMarks(marks, 'second', [item('b')]))).toEqual(['a', 'c']);
    expect(say(toggleMarks(marks, 'second', [item('b'), item('d')]))).toEqual(['a', 'c,b,d']);
  });

  it('stay over pages, each project having its own', () => {
    writeMarks('p', { first: [item('a')], second: [] });
    expect(say(readMarks('p'))).toEqual(['a', '']);
    expect(say(readMarks('q'))).toEqual(['', '']);
    writeMarks('p', { first: [], second: [] });
    expect(sessionStorage.getItem('coomb.marks.p')).toBeNull();
    sessionStorage.setItem('coomb.marks.p', '{"first": 7');
    expect(say(readMarks('p'))).toEqual(['', '']);
  });
});

describe('what is at hand', () => {
  const Holds = ({ ids }: { ids: string[] }) => {
    useAtHand(ids.map(item));
    return null;
  };
  const atHand = () => readAtHand().map(({ id }) => id);

  it('is what was chosen last, wherever that was, and goes with the view', () => {
    const list = render(<Holds ids={['a']} />);
    const sheet = render(<Holds ids={['b']} />);
    expect(atHand()).toEqual(['b']);
    list.rerender(<Holds ids={['c', 'd']} />);
    expect(atHand()).toEqual(['c', 'd']);
    list.rerender(<Holds ids={[]} />);
    expect(atHand()).toEqual(['b']);
    sheet.unmount();
    expect(atHand()).toEqual([]);
    list.unmount();
  });
});
