import { getProject, keepView, listSavedViews, renameView, withdrawView } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, presentAddress, show, usePage } from '../../testing/page';
import { KeptViews } from './KeptViews';
import { addressOfView } from './queries';

const view = {
  id: idOf(81),
  sort: 'matrix',
  name: 'Tests of needs',
  body: { rows: idOf(11), columns: '', kind: '', show: 'rowGaps' },
  person: 'Ada Wick',
  at: '2026-11-20T10:00:00.000Z',
};

describe('kept views', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listSavedViews, [view, { ...view, id: idOf(82), name: 'Of a later version', body: null }, { ...view, id: idOf(83), sort: 'bench', name: 'Bench' }]);
    show(<KeptViews project={aProject.id} sort="matrix" body={{ rows: 'r', show: 'all' }} />);
  });
  const open = async () => userEvent.click(await screen.findByRole('button', { name: 'Kept (2)' }));

  it('open where they were kept, of this sort only', async () => {
    await open();
    expect(screen.queryByText('Bench')).toBeNull();
    expect(screen.getByText('Of a later version').closest('a')).toBeNull();
    await userEvent.click(await screen.findByRole('link', { name: 'Tests of needs' }));
    expect(presentAddress()).toBe(`/p/${aProject.id}/link/matrix?rows=${idOf(11)}&show=rowGaps`);
  });

  it('keep how the view is set now', async () => {
    answer(keepView, view);
    await open();
    await userEvent.type(await screen.findByRole('textbox', { name: 'Name to keep this view under' }), 'Mine{Enter}');
    await waitFor(() =>
      expect(calls.find(({ call }) => call.startsWith('POST'))?.body).toEqual({ sort: 'matrix', name: 'Mine', body: { rows: 'r', show: 'all' } }),
    );
    expect(await screen.findByText('Kept for everybody in the project.')).toBeTruthy();
  });

  it('are called otherwise and let go', async () => {
    answer(renameView, view);
    answer(withdrawView, { seq: 9 });
    await open();
    await userEvent.click(await screen.findByRole('button', { name: 'Call Tests of needs otherwise' }));
    const field = screen.getByRole('textbox', { name: 'Its new name' });
    await userEvent.clear(field);
    await userEvent.type(field, 'Needs{Enter}');
    await waitFor(() => expect(calls.find(({ call }) => call === `PATCH /projects/${aProject.id}/views/${view.id}`)?.body).toEqual({ name: 'Needs' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep Tests of needs no more' }));
    await waitFor(() => expect(calls.some(({ call }) => call === `DELETE /projects/${aProject.id}/views/${view.id}`)).toBe(true));
  });

  it('have no address where they cannot be read', () => {
    expect(addressOfView({ id: 'a', sort: 'clouds', body: {} })).toBeUndefined();
    expect(addressOfView({ id: 'a', sort: 'matrix', body: null })).toBeUndefined();
    expect(addressOfView({ id: 'a', sort: 'structure', body: { by: 'groups', kept: '', result: '{}' } })).toBe('shape/structure?by=groups&kept=a');
  });
});
