import { cleanup, fireEvent, render } from '@testing-library/react';
import { useRef } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { useRestingFocus } from './use-resting-focus';

describe('a view whose keys stay alive', () => {
  afterEach(cleanup);
  const heard: string[] = [];
  function View({ panel = '' }: { panel?: string }) {
    const list = useRef<HTMLDivElement>(null);
    useRestingFocus(list);
    return (
      <>
        <div ref={list} tabIndex={-1} data-testid="list" onKeyDown={(event) => heard.push(`${event.altKey ? 'Alt ' : ''}${event.key}`)} />
        <input aria-label="Words" />
        {panel && <div role="dialog" {...(panel === 'closed' ? { hidden: true, 'data-state': 'closed' } : { 'data-state': 'open' })} />}
      </>
    );
  }
  const show = (panel?: string) => render(<View {...(panel && { panel })} />).getByTestId('list');
  const drop = () => (document.activeElement as HTMLElement).blur();

  it('has the focus when nothing else has it, also beside a panel that is closed', () => {
    const list = show('closed');
    expect(document.activeElement).toBe(list);
  });

  it('leaves it to an open panel', () => {
    show('open');
    expect(document.activeElement).toBe(document.body);
  });

  it('hears a key that comes before the focus did, once', () => {
    const list = show();
    drop();
    heard.length = 0;
    fireEvent.keyDown(document.body, { key: 'ArrowUp', altKey: true });
    expect(heard).toEqual(['Alt ArrowUp']);
    expect(document.activeElement).toBe(list);
    fireEvent.keyDown(list, { key: 'Delete' });
    expect(heard).toEqual(['Alt ArrowUp', 'Delete']);
  });

  it('hears no key of a field', () => {
    const field = render(<View />).getByLabelText('Words');
    field.focus();
    heard.length = 0;
    fireEvent.keyDown(field, { key: 'a' });
    expect(heard).toEqual([]);
  });
});
