import { type ExportFormat, exportFormats, exportItems, getItemsRecipe, getProject, listSources, type ReadBackReply, tryExport } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answer, aProject, calls, idOf, Refusal, show, usePage } from '../../testing/page';
import { SaveAs, SaveChosen } from '.';

const whole: ReadBackReply = {
  name: 'Gates.md',
  bytes: 100,
  items: { out: 3, back: 3 },
  links: { out: 2, back: 2 },
  pictures: { out: 0, back: 0 },
  differences: [],
};
const lossy: ReadBackReply = {
  ...whole,
  pictures: { out: 2, back: 0 },
  differences: [
    { what: 'Pictures', count: 2, items: [{ id: idOf(21), reference: 'SYS-001' }], before: '1', after: '0', isMarkup: false },
    {
      what: 'Formatting of the text',
      count: 1,
      items: [{ id: idOf(22), reference: 'SYS-002' }],
      before: '<ul><li>one</li></ul>',
      after: '<p>one</p>',
      isMarkup: true,
    },
  ],
};
const collection = aProject.collections[0]!.id;
const tried = () => calls.filter(({ call }) => call.endsWith('/read-back'));

describe('saving as a file', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listSources, []);
  });

  const open = async (page: React.ReactElement) => {
    show(page, { path: '/p/:project/shape', at: `/p/${aProject.id}/shape` });
    await userEvent.click(await screen.findByRole('button', { name: 'Save as a file…' }));
    return screen.findByRole('dialog');
  };

  it('tells of each format what comes back, and opens what does not', async () => {
    answer(tryExport, ({ url }) => (url.pathname.includes('/xlsx/') ? lossy : whole));
    const dialog = await open(<SaveAs project={aProject.id} collection={collection} count={3} />);
    expect(await within(dialog).findAllByText(/All of it comes back/)).toHaveLength(4);
    expect(within(dialog).getByText(/Comes back: 3 items, 2 links, 0 of 2 pictures/)).toBeTruthy();
    expect(tried().map(({ body }) => body)).toEqual(exportFormats.filter((format) => format !== 'model').map(() => ({ collection })));
    await userEvent.click(within(dialog).getByRole('button', { name: 'formatting of the text 1' }));
    expect(within(dialog).getByRole('link', { name: 'SYS-002' })).toBeTruthy();
    expect(dialog.querySelector('.rich li')!.textContent).toBe('one');
  });

  it('offers the model file that a collection came from, under its own ending', async () => {
    const source = {
      id: collection,
      name: 'Drive.bpmn',
      format: 'bpmn',
      size: 1,
      importedAt: '2026-01-01T00:00:00.000Z',
      importedBy: 'Ada',
      items: 3,
      issues: [],
    };
    answer(listSources, [{ ...source, lineage: collection, collection, recipe: null, recipeId: null }]);
    answer(tryExport, whole);
    const dialog = await open(<SaveAs project={aProject.id} collection={collection} count={3} />);
    await within(dialog).findByText('.bpmn');
    expect(within(dialog).getByRole('link', { name: 'Save as .model' }).getAttribute('href')).toContain('/export/model');
  });

  it('links to the file and its recipe', async () => {
    answer(tryExport, whole);
    const dialog = await open(<SaveAs project={aProject.id} collection={collection} count={3} />);
    const address = (format: ExportFormat) => `/api/projects/${aProject.id}/collections/${collection}/export/${format}`;
    expect(within(dialog).getByRole('link', { name: 'Save as .md' }).getAttribute('href')).toBe(address('md'));
    expect(within(dialog).getByRole('link', { name: 'Save the recipe of .reqif' }).getAttribute('href')).toBe(`${address('reqif')}/recipe`);
  });

  it('reads large ones back only when asked', async () => {
    answer(tryExport, whole);
    const dialog = await open(<SaveAs project={aProject.id} collection={collection} count={50_000} />);
    expect(tried()).toEqual([]);
    await userEvent.click(within(dialog).getByRole('button', { name: 'Try .csv' }));
    await within(dialog).findByText(/All of it comes back/);
    expect(tried()).toHaveLength(1);
  });

  it('says why a file could not be read back, and tries again', async () => {
    answer(tryExport, () => {
      throw new Refusal('not-found', 'There is no such collection; it may have been taken back.', 404);
    });
    const dialog = await open(<SaveAs project={aProject.id} collection={collection} count={3} />);
    await within(dialog).findAllByText(/it may have been taken back/);
    answer(tryExport, whole);
    await userEvent.click(within(dialog).getAllByRole('button', { name: 'Try again' })[0]!);
    await within(dialog).findByText(/All of it comes back/);
  });

  it('saves chosen items in each format, and says when the server refuses', async () => {
    const saved: string[] = [];
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      saved.push(this.download);
    });
    URL.createObjectURL = () => 'blob:x';
    URL.revokeObjectURL = () => {};
    answer(tryExport, whole);
    answer(exportItems, 'bytes');
    answer(getItemsRecipe, () => {
      throw new Refusal('not-found', 'SYS-003 is not there any more. Choose again.', 404);
    });
    const dialog = await open(<SaveChosen project={aProject.id} items={[idOf(21)]} />);
    await userEvent.click(within(dialog).getByRole('button', { name: 'Save as .reqif' }));
    await waitFor(() => expect(saved).toEqual(['export']));
    expect(calls.find(({ call }) => call === `POST /projects/${aProject.id}/export/reqif`)!.body).toEqual({ items: [idOf(21)] });
    await userEvent.click(within(dialog).getByRole('button', { name: 'Save the recipe of .xlsx' }));
    expect(await screen.findByText('SYS-003 is not there any more. Choose again.')).toBeTruthy();
  });
});
