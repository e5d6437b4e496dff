import { cleanup, createEvent, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { carries, useDropAnywhere, useDropFinder } from './drag-items';

const dropped: string[] = [];
function Page() {
  useDropAnywhere((dragged, target) => dropped.push(`${dragged} on ${target}`));
  useDropFinder(
    () => document.querySelector('#drawing'),
    (x) => (x < 50 ? 'MOD-001' : undefined),
  );
  return (
    <>
      <span {...carries('SYS-001')}>SYS-001</span>
      <div role="listbox">
        <div role="option" aria-selected={false}>
          <span>words of the row</span>{' '}
          <a href="/x" {...carries('TC-001')}>
            TC-001
          </a>
        </div>
      </div>
      <div id="drawing">
        <canvas aria-label="drawn" />
      </div>
      <p>nothing here</p>
    </>
  );
}

/** A drag that holds what a browser's would. */
function drag(from: Element, to: Element, at = { clientX: 10, clientY: 10 }, own = true) {
  const held = new Map<string, string>();
  const dataTransfer = {
    setData: (type: string, text: string) => held.set(type, text),
    getData: (type: string) => held.get(type) ?? '',
    get types() {
      return [...held.keys()];
    },
  };
  if (own) fireEvent.dragStart(from, { dataTransfer });
  else held.set('text/plain', 'SYS-001');
  const over = createEvent.dragOver(to, { dataTransfer, ...at });
  Object.assign(over, at);
  fireEvent(to, over);
  const lit = document.querySelector('[data-drop]');
  const drop = createEvent.drop(to, { dataTransfer });
  Object.assign(drop, at);
  fireEvent(to, drop);
  return { taken: over.defaultPrevented, lit };
}

describe('dragging an item onto another', () => {
  beforeEach(() => {
    dropped.length = 0;
    render(<Page />);
  });
  afterEach(cleanup);
  const source = () => screen.getByText('SYS-001');

  it('takes the item of the row that it was dropped on, wherever in the row', () => {
    const { lit, taken } = drag(source(), screen.getByText('words of the row'));
    expect(taken).toBe(true);
    expect(lit?.getAttribute('role')).toBe('option');
    expect(dropped).toEqual(['SYS-001 on TC-001']);
    expect(document.querySelector('[data-drop]')).toBeNull();
  });

  it('takes what lies under the pointer on a drawing, and nothing beside it', () => {
    drag(source(), screen.getByLabelText('drawn'));
    expect(drag(source(), screen.getByLabelText('drawn'), { clientX: 80, clientY: 10 }).taken).toBe(false);
    expect(dropped).toEqual(['SYS-001 on MOD-001']);
  });

  it('takes nothing where no item is, nothing onto itself, and nothing that came from elsewhere', () => {
    expect(drag(source(), screen.getByText('nothing here')).taken).toBe(false);
    drag(source(), source());
    expect(drag(source(), screen.getByText('TC-001'), undefined, false).taken).toBe(false);
    expect(dropped).toEqual([]);
  });
});
