import { dropTrayEntry, getProject, listRuns, listSources, listTray } from '@coomb/contract';
import { defaultScheme, proposeDocumentRecipe } from '@coomb/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aProject, answer, calls, idOf, show, usePage } from '../../../testing/page';
import { GatherPage } from './GatherPage';
import { findDraft, keepDraft } from '../recipe-forms/recipe-draft';

const file = (number: number, name: string) => ({ id: idOf(number), name, size: 5000, format: 'Workbook', at: '2026-11-02T08:00:00.000Z' });

describe('the sources of a project', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listSources, []);
    answer(listRuns, []);
  });

  it('name what was handed in and not imported, to go on with or to put away', async () => {
    let files = [file(71, 'Register C.xlsx'), file(72, 'Sirens.csv')];
    answer(listTray, () => files);
    answer(dropTrayEntry, () => {
      files = files.slice(1);
      return { dropped: true };
    });
    const recipe = proposeDocumentRecipe(defaultScheme, { blocks: [], pictures: new Map() });
    keepDraft(idOf(71), { body: { reads: 'document', recipe }, kept: undefined });
    expect(findDraft(idOf(71))).toBeDefined();
    show(<GatherPage />, { path: '/p/:project/gather', at: `/p/${aProject.id}/gather` });
    const region = await screen.findByRole('region', { name: 'Handed in, not imported yet' });
    expect(within(region).getByRole('link', { name: 'Go on with Sirens.csv' }).getAttribute('href')).toBe(`/p/${aProject.id}/gather/${idOf(72)}`);
    await userEvent.click(within(region).getByRole('button', { name: 'Put away Register C.xlsx' }));
    await waitFor(() => expect(within(region).queryByText('Register C.xlsx')).toBeNull());
    expect(calls.some(({ call }) => call === `DELETE /projects/${aProject.id}/tray/${idOf(71)}`)).toBe(true);
    expect(findDraft(idOf(71))).toBeUndefined();
  });

  it('say nothing of a tray that is empty', async () => {
    answer(listTray, []);
    show(<GatherPage />, { path: '/p/:project/gather', at: `/p/${aProject.id}/gather` });
    await screen.findByText('Drop files here, or choose them');
    expect(screen.queryByRole('region', { name: 'Handed in, not imported yet' })).toBeNull();
  });
});
