import { createProject, getProject, listProjects } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, presentAddress, Refusal, show, usePage } from '../../testing/page';
import { CourseBar } from '../frame/CourseBar';
import { PersonName } from '../frame/PersonName';
import { TopLine } from '../frame/TopLine';
import { readPerson } from '../../shared/api/person';
import { ProjectsPage } from './ProjectsPage';

const { id, name, createdAt, items, links, standing } = aProject;
const brief = { id, name, createdAt, items, links, standing };
const atStart = { path: '/', at: '/' };

describe('the list of projects', () => {
  usePage();

  it('opens a project by its name, with its size beside it', async () => {
    answer(listProjects, [brief]);
    show(<ProjectsPage />, atStart);
    const link = await screen.findByRole('link', { name: /Larkbeck Weir/ });
    expect(link.textContent).toContain('3 items · 1 links');
    await userEvent.click(link);
    expect(presentAddress()).toBe(`/p/${id}`);
  });

  it('starts a project under the trimmed name and goes there; without a name it cannot', async () => {
    answer(listProjects, []);
    answer(createProject, ({ body }) => ({ ...brief, id: idOf(9), name: (body as { name: string }).name }));
    show(<ProjectsPage />, atStart);
    const input = await screen.findByRole('textbox', { name: 'Name of a new project' });
    await userEvent.type(input, '   ');
    expect(screen.getByRole('button', { name: 'Start a project' })).toHaveProperty('disabled', true);
    await userEvent.type(input, 'Mill pond {Enter}');
    await waitFor(() => expect(presentAddress()).toBe(`/p/${idOf(9)}`));
    expect(calls.find(({ call }) => call === 'POST /projects')!.body).toEqual({ name: 'Mill pond', starter: 'needsToTests', outline: true });
  });

  it('says when the projects cannot be read, and keeps the way to start one', async () => {
    answer(listProjects, () => {
      throw new Refusal('internal', 'The database does not answer.', 500);
    });
    show(<ProjectsPage />, atStart);
    expect((await screen.findByRole('alert')).textContent).toContain('The database does not answer.');
    expect(screen.getByRole('button', { name: 'Start a project' })).toBeTruthy();
  });
});

describe('the course of the work', () => {
  usePage();
  const at = (rest: string) => show(<CourseBar project={aProject} />, { path: '/p/:project/*', at: `/p/${id}${rest}` });

  it('carries one live number per stage', () => {
    at('');
    expect(screen.getAllByRole('link').map((link) => link.textContent)).toEqual([
      'Gather1 source',
      'Shape',
      'Link2 to link',
      'Check1 open',
      'Publish7 changes to report',
    ]);
  });

  it.each([
    ['/link', ['Bench', 'Trace matrix'], 'Bench'],
    ['/link/matrix', ['Bench', 'Trace matrix'], 'Trace matrix'],
    ['/check/figure/open', ['Readiness', 'Open findings'], 'Open findings'],
  ])('opens the stage of %s to its views, with the present one marked', (rest, views, present) => {
    at(rest);
    for (const view of views) expect(screen.getByRole('link', { name: view })).toBeTruthy();
    expect(screen.getByRole('link', { name: present, current: 'page' })).toBeTruthy();
  });

  it('shows no views of stages elsewhere', () => {
    at('/gather');
    expect(screen.queryByText('Trace matrix')).toBeNull();
  });
});

describe('the line at the top', () => {
  usePage();

  it('changes the theme and remembers it', async () => {
    answer(getProject, aProject);
    show(<TopLine project={aProject} onFind={() => {}} onKeys={() => {}} />);
    await userEvent.click(screen.getByRole('button', { name: 'Dark theme' }));
    expect(document.documentElement.classList.contains('dark')).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Light theme' }));
    expect(document.documentElement.classList.contains('dark')).toBe(false);
    expect(localStorage.getItem('coomb.theme')).toBe('light');
  });

  it('keeps the name that changes are recorded under', async () => {
    localStorage.clear();
    show(<PersonName />);
    await userEvent.click(screen.getByRole('button', { name: 'Who are you?' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Your name' }), 'Ada Brook{Enter}');
    expect(screen.getByRole('button', { name: 'Ada Brook' })).toBeTruthy();
    expect(readPerson()).toBe('Ada Brook');
  });
});
