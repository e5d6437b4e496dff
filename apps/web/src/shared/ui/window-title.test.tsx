import { renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { useWindowPlace, useWindowTitle } from './window-title';

describe('the title of the window', () => {
  it('says item or view, project, Coomb, and goes back when something is closed', () => {
    const project = renderHook(({ name }) => useWindowPlace(name), { initialProps: { name: 'Larkbeck Weir' } });
    const view = renderHook(({ text }) => useWindowTitle(text), { initialProps: { text: 'Trace matrix' } });
    expect(document.title).toBe('Trace matrix · Larkbeck Weir · Coomb');
    const item = renderHook(() => useWindowTitle('SYS-001 Pool level band'));
    expect(document.title).toBe('SYS-001 Pool level band · Larkbeck Weir · Coomb');
    item.unmount();
    view.rerender({ text: 'Readiness' });
    project.rerender({ name: 'Mill race' });
    expect(document.title).toBe('Readiness · Mill race · Coomb');
    view.unmount();
    project.unmount();
    expect(document.title).toBe('Coomb');
  });
});
