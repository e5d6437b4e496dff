import { getProject, type KeptRecipe, keepRecipe, listRecipes, type RecipeBody, withdrawRecipe } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, Refusal, show, usePage } from '../../testing/page';
import { readRecipeFile } from './recipe-file';
import { RecipeBar } from './RecipeBar';
import { RecipesPage } from './RecipesPage';

const body: RecipeBody = { reads: 'sheet', recipe: { name: 'Export', sheet: 'A', headerRow: 0, kind: 'requirement', columns: [] } };
const kept = (change: Partial<KeptRecipe> = {}): KeptRecipe => ({
  id: idOf(41),
  name: 'Export of gates',
  ready: false,
  body,
  changedAt: '2026-11-20T10:00:00.000Z',
  changedBy: 'Ada Brook',
  usedBy: [],
  ...change,
});
const ready = kept({ id: 'ready-x', name: 'Numbered statements', ready: true, changedAt: null, changedBy: null });

function Held({ seen }: { seen: (string | undefined)[] }) {
  const [id, setId] = useState<string>();
  return (
    <RecipeBar
      body={body}
      kept={id}
      onPut={(_, next) => {
        seen.push(next);
        setId(next);
      }}
    />
  );
}

describe('the recipe bar', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    const forDocuments = { name: 'D', kind: 'need', headings: [], identifier: '', bindingWords: [], labels: [], tables: [] };
    answer(listRecipes, [kept(), ready, kept({ id: idOf(42), name: 'For documents', body: { reads: 'document', recipe: forDocuments } })]);
  });

  it('offers recipes for files of this sort and follows the chosen one', async () => {
    const seen: (string | undefined)[] = [];
    show(<Held seen={seen} />);
    const choice = await screen.findByRole('combobox', { name: 'Recipe' });
    await screen.findByText('Export of gates');
    expect([...choice.querySelectorAll('option')].map((option) => option.textContent)).toEqual([
      'recipe: proposed from the file',
      'Export of gates',
      'Numbered statements (comes with Coomb)',
    ]);
    await userEvent.selectOptions(choice, 'Export of gates');
    expect(seen).toEqual([idOf(41)]);
    expect(screen.getByRole('button', { name: 'Keep changes' })).toBeTruthy();
  });

  it('lets nobody change a ready recipe, only copy it under a name', async () => {
    answer(keepRecipe, ({ body: sent }) => kept({ id: idOf(43), name: (sent as { name: string }).name }));
    const seen: (string | undefined)[] = [];
    show(<Held seen={seen} />);
    await screen.findByText('Export of gates');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Recipe' }), 'Numbered statements (comes with Coomb)');
    expect(screen.queryByRole('button', { name: 'Keep changes' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Keep as…' }));
    expect((screen.getByRole('textbox', { name: 'Name of the recipe' }) as HTMLInputElement).value).toBe('Numbered statements (copy)');
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(seen.at(-1)).toBe(idOf(43)));
    expect(calls.find(({ call }) => call.startsWith('POST'))!.body).toMatchObject({ name: 'Numbered statements (copy)', body: { reads: 'sheet' } });
  });

  it('takes a recipe from a file, and refuses one for other files in words', async () => {
    const seen: (string | undefined)[] = [];
    show(<Held seen={seen} />);
    const input = (await screen.findByLabelText('Recipe file')) as HTMLInputElement;
    await userEvent.upload(input, new File([JSON.stringify({ coombRecipe: 1, name: 'R', body })], 'r.json', { type: 'application/json' }));
    await waitFor(() => expect(seen).toEqual([undefined]));
    await userEvent.upload(
      input,
      new File([JSON.stringify({ coombRecipe: 1, name: 'X', body: { reads: 'exchange', recipe: { name: '', types: [], relations: [] } } })], 'x.json', {
        type: 'application/json',
      }),
    );
    expect(await screen.findByText(/reads files of another sort/)).toBeTruthy();
  });

  it.each([
    ['no JSON', 'it is no JSON'],
    ['{"coombRecipe":1,"name":""}', 'is not a recipe file'],
  ])('says what is wrong with a file of %s', async (text, message) => {
    await expect(readRecipeFile(new File([text], 'a.json'))).rejects.toThrow(message);
  });
});

describe('the list of recipes', () => {
  usePage();
  beforeEach(() => answer(getProject, aProject));

  it('says where each was used, and lets ready ones be copied only', async () => {
    answer(listRecipes, [kept({ usedBy: [{ id: idOf(51), name: 'gates.xlsx', importedAt: '2026-11-20T10:00:00.000Z' }] }), ready]);
    answer(withdrawRecipe, { seq: 8, ids: [idOf(41)] });
    show(<RecipesPage />);
    expect((await screen.findByRole('link', { name: 'gates.xlsx' })).getAttribute('href')).toBe(`/p/${aProject.id}/gather/sources/${idOf(51)}`);
    expect(screen.getAllByRole('button', { name: 'Copy' })).toHaveLength(2);
    await userEvent.click(screen.getByRole('button', { name: 'Take away' }));
    expect(await screen.findByText('Taken away. Undo brings it back.')).toBeTruthy();
  });

  it('says how to make the first, and what went wrong', async () => {
    answer(listRecipes, [ready]);
    show(<RecipesPage />);
    expect(await screen.findByText(/None is kept yet/)).toBeTruthy();
    answer(listRecipes, () => {
      throw new Refusal('internal', 'The recipes could not be read.', 500);
    });
    show(<RecipesPage />);
    expect((await screen.findAllByRole('alert'))[0]!.textContent).toContain('could not be read');
  });
});
