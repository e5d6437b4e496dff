import { createProject, listProjects } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, presentAddress, Refusal, show, usePage } from '../../testing/page';
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
