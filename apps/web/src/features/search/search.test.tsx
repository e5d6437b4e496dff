import { type Found, findItems, getProject, giveErrands, listPersons } from '@coomb/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { aBrief, answer, aProject, idOf, presentAddress, sentTo, show, usePage } from '../../testing/page';
import { SearchPage } from './SearchPage';

const found = (number: number): Found => ({ ...aBrief(number, `Gate ${number}`), referenceMarks: [], titleMarks: [], excerpt: null });

describe('what was found', () => {
  usePage();
  beforeEach(() => {
    answer(getProject, aProject);
    answer(listPersons, []);
    answer(giveErrands, { seq: 8, ids: [] });
    answer(findItems, ({ url }) => (url.searchParams.get('words') === 'gate' ? [found(1), found(2)] : []));
  });

  it('is a list of which many are chosen and handed on', async () => {
    show(<SearchPage />, { at: `/p/${aProject.id}?words=gate` });
    const list = await screen.findByRole('grid', { name: 'Found items' });
    expect(
      within(list)
        .getAllByRole('row')
        .filter((row) => row.dataset.name !== undefined),
    ).toHaveLength(2);
    list.focus();
    await userEvent.keyboard('{Control>}a{/Control}h');
    await userEvent.type(await screen.findByLabelText('Person'), 'Ida Moss{Enter}');
    await waitFor(() => expect(sentTo(/errands$/)).toMatchObject([{ sort: 'look', about: [1, 2].map((number) => ({ item: idOf(100 + number) })) }]));
  });

  it('asks for words, keeps them in the address, and says when nothing says so', async () => {
    show(<SearchPage />);
    expect(await screen.findByText('What are you looking for?')).toBeTruthy();
    await userEvent.type(screen.getByLabelText('Words'), 'pump');
    expect(await screen.findByText('Nothing says so')).toBeTruthy();
    await waitFor(() => expect(presentAddress()).toContain('words=pump'));
  });
});
