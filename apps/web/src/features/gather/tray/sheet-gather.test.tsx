import { addFields, checkFile, getProject, getTrayEntry, listRecipes, listSources, type TrayEntry } from '@coomb/contract';
import { defaultScheme, proposeSheetRecipe, type SourceSheet } from '@coomb/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, Refusal, show, usePage } from '../../../testing/page';
import { TrayPage } from './TrayPage';

const sheet: SourceSheet = {
  name: 'SW',
  rows: [
    ['ID', 'Requirement', 'Review', '', 'Weight'],
    ['', '', 'State', 'By', ''],
    ['Gates'],
    ['SW-1', 'Close', 'Open', 'Ida', '4'],
    ['SW-2', 'Open', 'Open', 'Tom', '5'],
    ['SW-3', 'Stop', 'Done', 'Tom', '6'],
    ['SW-4', 'Wait', 'Done', 'Ida', '7'],
  ],
  merges: [
    { top: 0, left: 2, bottom: 0, right: 3 },
    { top: 0, left: 0, bottom: 1, right: 0 },
    { top: 2, left: 0, bottom: 2, right: 4 },
  ],
};
const entry: TrayEntry = {
  id: idOf(80),
  name: 'software.xlsx',
  size: 2000,
  format: 'xlsx',
  label: 'Workbook',
  issues: [],
  content: { type: 'sheets', sheets: [sheet], recipe: proposeSheetRecipe(defaultScheme, [sheet], 'requirement') },
};
const titles = () =>
  within(screen.getByRole('listbox', { name: 'Items that would be imported' }))
    .getAllByRole('option')
    .map((one) => one.textContent);
const asked = () => calls.find(({ call }) => call.endsWith('/fields'))?.body;

describe('a sheet in the tray', () => {
  usePage();
  beforeEach(async () => {
    answer(getProject, aProject);
    answer(getTrayEntry, entry);
    answer(listRecipes, []);
    localStorage.clear();
    answer(listSources, []);
    answer(checkFile, { links: 0, issues: [], lineage: null });
    show(<TrayPage />, { path: '/p/:project/gather/:tray', at: `/p/${aProject.id}/gather/${entry.id}` });
    await screen.findByText('software.xlsx');
  });

  it('reads a header of two rows and rows across as sections, unless told otherwise', async () => {
    expect(screen.getAllByText('Review / State').length).toBeGreaterThan(0);
    expect(screen.getByText('column names in rows 1 to 2')).toBeTruthy();
    expect(titles()[0]).toBe('Gates');
    await userEvent.click(screen.getByLabelText('Merged rows are sections'));
    await waitFor(() => expect(titles()[0]).toBe('GatesGates'));
  });

  it('gives every item the same value of a field that no column holds', async () => {
    await userEvent.selectOptions(screen.getByLabelText('Field that is the same for every item'), 'Priority');
    await userEvent.selectOptions(screen.getByLabelText('Priority of every item'), 'High');
    await waitFor(() => expect(titles()[1]).toContain('2 fields'));
    await userEvent.click(screen.getByRole('button', { name: 'Forget Priority' }));
    await waitFor(() => expect(titles()[1]).not.toContain('2 fields'));
  });

  it('makes a field of a column, of the type that its values have', async () => {
    const field = { id: 'weight', label: 'Mass', type: 'number' as const };
    answer(addFields, { fields: [field] });
    await userEvent.selectOptions(screen.getByLabelText('Meaning of Weight'), 'a new field…');
    const form = screen.getByRole('form', { name: 'New field for Weight' });
    expect((within(form).getByLabelText('Type of the new field') as HTMLSelectElement).value).toBe('number');
    const name = within(form).getByLabelText('Name of the new field');
    await userEvent.clear(name);
    await userEvent.type(name, 'Mass');
    answer(getProject, {
      ...aProject,
      scheme: {
        ...aProject.scheme,
        kinds: aProject.scheme.kinds.map((kind) => (kind.id === 'requirement' ? { ...kind, fields: [...kind.fields, field] } : kind)),
      },
    });
    await userEvent.click(within(form).getByRole('button', { name: 'Add field' }));
    await waitFor(() => expect(asked()).toEqual({ fields: [{ kind: 'requirement', label: 'Mass', type: 'number' }] }));
    await waitFor(() => expect((screen.getByLabelText('Meaning of Weight') as HTMLSelectElement).value).toBe('field weight'));
    await waitFor(() => expect(titles()[1]).toContain('1 field'));
  });

  it('says why a field cannot be made, and lets go of it', async () => {
    answer(addFields, () => {
      throw new Refusal('input-invalid', 'Requirements have a field "Weight" already', 400);
    });
    await userEvent.selectOptions(screen.getByLabelText('Meaning of Review / State'), 'a new field…');
    expect((screen.getByLabelText('What may be chosen') as HTMLInputElement).value).toBe('Open, Done');
    await userEvent.click(screen.getByRole('button', { name: 'Add field' }));
    expect(await screen.findByText('Requirements have a field "Weight" already')).toBeTruthy();
    await userEvent.click(within(screen.getByRole('form', { name: 'New field for Review / State' })).getByRole('button', { name: 'Leave' }));
    expect(screen.queryByRole('form', { name: 'New field for Review / State' })).toBeNull();
  });

  it('makes fields of all columns left out at once', async () => {
    answer(addFields, (sent) => ({
      fields: (sent.body as { fields: { label: string; type: 'text' }[] }).fields.map(({ label, type }) => ({ id: label, label, type })),
    }));
    await userEvent.click(screen.getByRole('button', { name: 'Make fields of 2 columns left out' }));
    await waitFor(() =>
      expect(asked()).toEqual({
        fields: [
          { kind: 'requirement', label: 'By', type: 'choice', options: ['Ida', 'Tom'] },
          { kind: 'requirement', label: 'Weight', type: 'number' },
        ],
      }),
    );
    await waitFor(() => expect(screen.queryByRole('button', { name: /Make fields of/ })).toBeNull());
  });
});
