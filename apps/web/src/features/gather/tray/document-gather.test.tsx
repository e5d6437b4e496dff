import { addFields, checkFile, getProject, getTrayEntry, keepSource, listRecipes, listSources, type TrayEntry } from '@coomb/contract';
import { defaultScheme, proposeDocumentRecipe, type SourceBlock } from '@coomb/core';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, show, usePage } from '../../../testing/page';
import { forgetDraft } from '../recipe-forms/recipe-draft';
import { TrayPage } from './TrayPage';

const tray = idOf(80);
const line = (at: number, text: string, more: Partial<Extract<SourceBlock, { type: 'paragraph' }>> = {}): SourceBlock => ({
  type: 'paragraph',
  at,
  level: 0,
  text,
  html: text,
  ...more,
});
const blocks: SourceBlock[] = [
  line(1, 'Gates', { level: 1, number: '4' }),
  line(2, 'The gate must close. It must be grey.', {
    number: '4.1',
    tracked: { text: 'The gate may close.', html: 'The gate may close.', marked: 'The gate <del>may</del><ins>must</ins> close.' },
  }),
  line(3, 'Boats must wait, in accordance with NEED-009.', {
    number: '4.2',
    footnotes: [{ mark: '[1]', html: 'Not rescue boats' }],
    comments: [{ by: 'Tom Garth', text: 'All boats?' }],
  }),
];
const entry: TrayEntry = {
  id: tray,
  name: 'Rules.docx',
  size: 2000,
  format: 'docx',
  label: 'Word-processed document',
  issues: [],
  content: { type: 'document', blocks, recipe: proposeDocumentRecipe(defaultScheme, { blocks, pictures: new Map() }) },
};
const outcome = () => screen.getByRole('listbox', { name: 'Items that would be imported' });
const titles = () =>
  within(outcome())
    .getAllByRole('option')
    .map((one) => one.textContent);
const lastCheck = () => calls.filter(({ call }) => call.endsWith('/check')).at(-1)?.body as { documentRecipe: { phrases?: unknown[] } } | undefined;

const kept = {
  id: idOf(90),
  name: 'House.docx',
  format: 'docx',
  size: 1,
  importedAt: '2026-11-01T08:00:00.000Z',
  importedBy: 'Ada',
  items: 4,
  issues: [],
  lineage: idOf(90),
  collection: aProject.collections[0]!.id,
  recipeId: null,
};

async function open() {
  show(<TrayPage />, { path: '/p/:project/gather/:tray', at: `/p/${aProject.id}/gather/${tray}` });
  await screen.findByText('Rules.docx');
}

describe('a document in the tray', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(getTrayEntry, entry);
    answer(listRecipes, []);
    answer(listSources, []);
    localStorage.clear();
    answer(checkFile, { links: 0, issues: [], lineage: null });
  });

  it('shows numbers, tracked changes, footnotes and comments as they read', async () => {
    await open();
    const text = await screen.findByLabelText('The document as it reads');
    expect(within(text).getByText('4.1')).toBeTruthy();
    expect([text.querySelector('del')?.textContent, text.querySelector('ins')?.textContent]).toEqual(['may', 'must']);
    expect(text.textContent).toContain('[1] Not rescue boats');
    expect(text.textContent).toContain('Tom Garth: All boats?');
  });

  it('keeps a recipe that was changed by hand, until the file is imported', async () => {
    await open();
    await userEvent.selectOptions(screen.getByLabelText('Tracked changes'), 'rejected');
    cleanup();
    await open();
    expect((screen.getByLabelText('Tracked changes') as HTMLSelectElement).value).toBe('rejected');
    forgetDraft(entry.id);
    cleanup();
    await open();
    expect((screen.getByLabelText('Tracked changes') as HTMLSelectElement).value).toBe('accepted');
  });

  it('takes tracked changes back when told to', async () => {
    await open();
    expect(titles()).toContainEqual(expect.stringContaining('The gate must close. It must be grey.'));
    await userEvent.selectOptions(screen.getByLabelText('Tracked changes'), 'rejected');
    await waitFor(() => expect(titles().join()).not.toContain('The gate must close'));
  });

  it('makes references of numbers, and items of sentences', async () => {
    await open();
    const numbers = () => screen.getByLabelText('Numbers of headings and clauses');
    await userEvent.selectOptions(numbers(), 'reference');
    await userEvent.type(screen.getByLabelText('Words before numbers'), 'OR-');
    await waitFor(() => expect(titles()).toContainEqual(expect.stringContaining('OR-4.2')));
    await userEvent.selectOptions(numbers(), 'field: rationale');
    await waitFor(() => expect(titles().join()).not.toContain('OR-4.2'));
    expect(screen.queryByLabelText('Words before numbers')).toBeNull();
    await userEvent.selectOptions(numbers(), 'left as they stand');
    await userEvent.click(screen.getByLabelText('Each such sentence is an item, not each paragraph'));
    await waitFor(() => expect(titles()).toHaveLength(4));
  });

  it('gives every item a value that the document does not say', async () => {
    await open();
    await userEvent.selectOptions(screen.getByLabelText('Field that is the same for every item'), 'Priority');
    await userEvent.selectOptions(screen.getByLabelText('Priority of every item'), 'High');
    await waitFor(() => expect(titles()[1]).toContain('1 field'));
    await userEvent.click(screen.getByRole('button', { name: 'Forget Priority' }));
    await waitFor(() => expect(titles()[1]).not.toContain('1 field'));
  });

  it('makes a field for the numbers where the kind has none', async () => {
    answer(addFields, { fields: [{ id: 'clause', label: 'Clause', type: 'text' }] });
    await open();
    await userEvent.selectOptions(screen.getByLabelText('Numbers of headings and clauses'), 'a new field…');
    await userEvent.click(screen.getByRole('button', { name: 'Add field' }));
    await waitFor(() =>
      expect(calls.find(({ call }) => call.endsWith('/fields'))?.body).toEqual({ fields: [{ kind: 'requirement', label: 'Clause', type: 'text' }] }),
    );
    await waitFor(() => expect(screen.queryByRole('form', { name: 'New field for Clause' })).toBeNull());
  });

  it('asks what selected words lead to, and reads them so', async () => {
    await open();
    const node = within(screen.getByLabelText('The document as it reads')).getByText(/Boats must wait/).firstChild!;
    const range = document.createRange();
    range.setStart(node, 17);
    range.setEnd(node, 44);
    range.getBoundingClientRect = () => new DOMRect(10, 10, 100, 20);
    document.getSelection()!.removeAllRanges();
    document.getSelection()!.addRange(range);
    screen.getByLabelText('The document as it reads').dispatchEvent(new MouseEvent('mouseup', { bubbles: true }));
    await userEvent.click(await screen.findByRole('button', { name: 'Say what “in accordance with” leads to' }));
    await userEvent.selectOptions(await screen.findByLabelText('Meaning of in accordance with'), 'link: is derived from');
    await waitFor(() => expect(titles()).toContainEqual(expect.stringContaining('1 link')));
    await waitFor(() =>
      expect(lastCheck()?.documentRecipe.phrases).toEqual([{ words: 'in accordance with', meaning: { as: 'link', linkKind: 'derives', reversed: false } }]),
    );
    await userEvent.click(screen.getByRole('button', { name: 'Forget in accordance with' }));
    await waitFor(() => expect(titles().join()).not.toContain('1 link'));
  });

  it('looks for the other ends where it is told to', async () => {
    await open();
    await userEvent.type(screen.getByLabelText('Words of a phrase'), 'derived from{Enter}');
    await userEvent.selectOptions(await screen.findByLabelText('Meaning of derived from'), 'link: is derived from');
    await userEvent.click(screen.getByRole('button', { name: 'Other ends of derived from' }));
    await userEvent.selectOptions(await screen.findByLabelText('Key of derived from'), 'its title');
    await waitFor(() => expect((screen.getByLabelText('Key of derived from') as HTMLSelectElement).value).toBe('title'));
    await userEvent.click(screen.getByLabelText('Gate tests'));
    await waitFor(() => expect((screen.getByLabelText('Gate tests') as HTMLInputElement).checked).toBe(true));
    await waitFor(() =>
      expect(lastCheck()?.documentRecipe.phrases).toEqual([
        { words: 'derived from', meaning: { as: 'link', linkKind: 'derives', reversed: false, by: 'title', within: ['Gate tests'] } },
      ]),
    );
  });

  it('says before anything is stored what the project would answer, the worst first', async () => {
    answer(checkFile, {
      lineage: null,
      links: 1,
      issues: [
        { severity: 'note', code: 'x', at: 'paragraph 2', message: 'A trifle' },
        { severity: 'warning', code: 'link-target-unknown', at: 'paragraph 3', message: '"NEED-009" is not in the project' },
      ],
    });
    answer(getTrayEntry, {
      ...entry,
      content: {
        ...entry.content,
        recipe: {
          ...(entry.content as { recipe: object }).recipe,
          phrases: [
            { words: 'with', meaning: { as: 'link', linkKind: 'derives', reversed: false } },
            { words: 'accordance with', meaning: { as: 'link', linkKind: 'derives', reversed: false } },
          ],
        },
      } as TrayEntry['content'],
    });
    await open();
    const remarks = await screen.findByRole('region', { name: 'Remarks' });
    await waitFor(() => expect(remarks.textContent).toMatch(/NEED-009.*A trifle/));
    expect(screen.getByText(/1 of 2 links; 1 doubtful, 2 notes/)).toBeTruthy();
  });

  it('marks rows that something is remarked of, and shows them alone, by mouse and by keys', async () => {
    await open();
    const all = titles().length;
    await userEvent.click(screen.getByLabelText('Only the 1 with remarks'));
    expect(titles()).toHaveLength(1);
    expect(titles()[0]).toContain('The gate must close');
    await userEvent.click(screen.getByLabelText('Only the 1 with remarks'));
    expect(titles()).toHaveLength(all);
    outcome().focus();
    await userEvent.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}{ArrowUp}');
    expect(within(outcome()).getAllByRole('option', { selected: true })[0]!.textContent).toBe(titles()[1]);
  });

  it('shows more remarks than fit at once when asked', async () => {
    answer(checkFile, {
      lineage: null,
      links: 0,
      issues: Array.from({ length: 450 }, (_, at) => ({ severity: 'note' as const, code: 'x', at: `paragraph ${at}`, message: `Remark ${at}.` })),
    });
    await open();
    const group = await screen.findByRole('button', { name: /450 places/ });
    expect(screen.queryByText('Remark 7.')).toBeNull();
    await userEvent.click(group);
    await userEvent.click(screen.getByRole('button', { name: 'Show 200 of 250 more' }));
    expect(screen.getByText('Remark 399.')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Show 50 of 50 more' }));
    expect(screen.getByText('Remark 449.')).toBeTruthy();
  });

  it('goes on with the source that holds the same items, whatever the file is called', async () => {
    const recipe = { reads: 'document' as const, recipe: proposeDocumentRecipe(defaultScheme, { blocks, pictures: new Map() }) };
    const source = { format: 'docx', size: 1, importedAt: '2026-11-01T08:00:00.000Z', importedBy: 'Ada', items: 4, issues: [], recipe, recipeId: null };
    const collection = aProject.collections[0]!.id;
    answer(listSources, [{ ...source, id: idOf(91), name: 'Boats.docx', lineage: idOf(91), collection }]);
    answer(checkFile, { lineage: idOf(91), links: 0, issues: [] });
    await open();
    await waitFor(() => expect((screen.getByLabelText('Collection') as HTMLSelectElement).selectedOptions[0]!.textContent).toBe('newer version of Boats.docx'));
    await userEvent.selectOptions(screen.getByLabelText('Collection'), 'a new collection');
    await waitFor(() => expect(screen.getByRole('button', { name: 'Import' })).toBeTruthy());
  });

  it('is kept to clip from like its older version, unless told otherwise', async () => {
    const source = { format: 'docx', size: 1, importedAt: '2026-11-01T08:00:00.000Z', importedBy: 'Ada', items: 0, issues: [], recipe: null, recipeId: null };
    answer(listSources, [{ ...source, id: idOf(92), name: 'Rules 1.docx', lineage: idOf(92), collection: null }]);
    answer(keepSource, { source: idOf(93), carried: 2, lost: 1 });
    await open();
    const chosen = () => (screen.getByLabelText('Collection') as HTMLSelectElement).selectedOptions[0]!.textContent;
    await waitFor(() => expect(chosen()).toBe('keep to clip from, as a newer Rules 1.docx'));
    expect(screen.queryByRole('option', { name: 'newer version of Rules 1.docx' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(calls.find(({ call }) => call.endsWith('/keep'))?.body).toEqual({ again: idOf(92) }));
  });

  it('starts from the recipe that the older version was read by, and keeps what is changed by hand', async () => {
    const recipe = { ...proposeDocumentRecipe(defaultScheme, { blocks, pictures: new Map() }), numberPrefix: 'OLD-' };
    const older = { ...kept, recipe: { reads: 'document' as const, recipe } };
    answer(listSources, [older]);
    await open();
    await screen.findByRole('option', { name: 'newer version of House.docx' });
    await userEvent.selectOptions(screen.getByLabelText('Collection'), 'newer version of House.docx');
    await waitFor(() => expect(titles()).toContainEqual(expect.stringContaining('OLD-4.2')));
    expect(screen.getByText('recipe: as House.docx was read')).toBeTruthy();
    await userEvent.selectOptions(screen.getByLabelText('Numbers of headings and clauses'), 'left as they stand');
    await waitFor(() => expect(titles().join()).not.toContain('OLD-'));
    await userEvent.selectOptions(screen.getByLabelText('Collection'), 'a new collection');
    await userEvent.selectOptions(screen.getByLabelText('Collection'), 'newer version of House.docx');
    expect(titles().join()).not.toContain('OLD-');
  });

  it('keeps its own recipe where the older version is of another format', async () => {
    const older = {
      ...kept,
      recipe: { reads: 'document' as const, recipe: { ...proposeDocumentRecipe(defaultScheme, { blocks, pictures: new Map() }), numberPrefix: 'OLD-' } },
    };
    answer(listSources, [{ ...older, name: 'House.md' }]);
    await open();
    await userEvent.selectOptions(screen.getByLabelText('Collection'), await screen.findByRole('option', { name: 'newer version of House.md' }));
    await waitFor(() => expect(calls.some(({ call }) => call.endsWith('/check'))).toBe(true));
    expect(titles().join()).not.toContain('OLD-');
    expect(screen.queryByText('recipe: as House.md was read')).toBeNull();
  });

  it('shows its pictures before they are stored', async () => {
    const name = 'media/a&b.png';
    const shown = [line(3, 'See the plan.', { html: 'See <img src="coomb-picture:media/a&amp;b.png" alt="plan" />the plan.' })];
    answer(getTrayEntry, { ...entry, content: { ...entry.content, blocks: shown } as never });
    await open();
    const picture = await screen.findByRole('img', { name: 'plan' });
    expect(picture.getAttribute('src')).toBe(`/api/projects/${aProject.id}/tray/${tray}/picture?name=${encodeURIComponent(name)}`);
  });
});
