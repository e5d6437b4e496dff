import { getProject, getUndo, getUpkeep, listJobs, listSources } from '@coomb/contract';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { routesOf } from './routes';
import { addressesOf, type View } from './shared/view';
import { Page } from './shared/ui/page';
import { answer, aProject, showRoutes, usePage } from './testing/page';
import { views } from './views';

const manifests = import.meta.glob<Record<string, View>>('./features/*/view.ts', { eager: true });

describe('the list of views', () => {
  it('names every manifest that a folder holds, once', () => {
    const held = Object.values(manifests).flatMap((module) => Object.values(module));
    expect(held.length).toBeGreaterThan(15);
    expect(new Set(views)).toEqual(new Set(held));
    expect(new Set(views).size).toBe(views.length);
  });

  it('gives every address to one view, and every stage an entry that says what waits', () => {
    const addresses = views.flatMap((view) => addressesOf(view));
    expect(new Set(addresses).size).toBe(addresses.length);
    for (const stage of ['gather', 'shape', 'link', 'check', 'publish'])
      expect(
        views.some((view) => view.stage === stage && view.path === stage && view.waits),
        stage,
      ).toBe(true);
  });

  it.each(views.map((view) => [view.name, view] as const))('loads the page of %s', async (_name, view) => {
    expect(await view.load()).toBeTypeOf('function');
    expect(view.help).toMatch(/^[A-Z].*[.?]$/);
  });
});

describe('a view that is added', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(getUndo, { undo: null, redo: null });
    answer(listJobs, []);
    answer(listSources, []);
    answer(getUpkeep, { copies: null, free: 1e12 });
  });

  /** One folder and one line: this is all that a view is to the frame. */
  const silt: View = {
    stage: 'check',
    name: 'Silt',
    help: 'How much silt lies before each gate.',
    path: 'check/silt',
    keys: [['S', 'Stir it']],
    load: async () => () => <Page />,
  };

  it('has its address, its entry in the course, its keys, its line in find anything and its title', async () => {
    showRoutes(routesOf([...views, silt]), `/p/${aProject.id}/check/silt`);
    expect(await screen.findByRole('heading', { name: 'Silt' })).toBeTruthy();
    expect(document.title).toBe('Silt · Larkbeck Weir · Coomb');
    const course = screen.getByRole('group', { name: 'Views' });
    expect([...course.querySelectorAll('a')].map((link) => link.textContent)).toEqual(['Readiness', 'Findings', 'In hand', 'Silt']);
    expect(within(course).getByRole('link', { name: 'Silt', current: 'page' })).toBeTruthy();
    await userEvent.keyboard('?');
    expect(await screen.findByText('Stir it')).toBeTruthy();
    expect(within(screen.getByRole('dialog')).getByText('How much silt lies before each gate.')).toBeTruthy();
    await userEvent.keyboard('{Escape}{Control>}k{/Control}');
    await userEvent.type(await screen.findByRole('combobox', { name: 'Find anything' }), 'silt');
    expect((await screen.findAllByRole('option')).map((option) => option.textContent)).toContain('Check: SiltView');
  });
});
