import { moveItem } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { aProject, answer, calls, idOf, Refusal, show, usePage } from '../../testing/page';
import { useMoves } from './use-moves';

const [a, b, c] = [idOf(1), idOf(2), idOf(3)];

/** Three items at the top, whose outline comes when the test says so. */
function Three() {
  const [{ ids, seq }, setOutline] = useState({ ids: [a, b, c], seq: 7 });
  const outline = { id: ids, parent: [-1, -1, -1], seq };
  const move = useMoves(aProject.id, { outline, rows: [0, 1, 2], placeOf: new Map(ids.map((id, place) => [id, place])) });
  return (
    <>
      <button type="button" onClick={() => move(a, 'down')}>
        down
      </button>
      <button type="button" onClick={() => move(a, 'up')}>
        up
      </button>
      <button
        type="button"
        onClick={() => {
          move(a, 'down');
          move(a, 'down');
        }}
      >
        twice
      </button>
      <button type="button" onClick={() => setOutline({ ids: [b, a, c], seq: 8 })}>
        come
      </button>
    </>
  );
}
const sent = () => calls.filter(({ call }) => call.startsWith('POST')).map(({ body }) => body);
const press = async (...names: string[]) => {
  for (const name of names) await userEvent.click(await screen.findByRole('button', { name }));
};

describe('moves wished for fast', () => {
  usePage();

  it('go one step after the other, each from what the one before it made', async () => {
    answer(moveItem, { seq: 8, ids: [a] });
    show(<Three />);
    await press('twice');
    await waitFor(() => expect(sent()).toEqual([{ parent: null, after: b }]));
    // Answered, but the outline is still the old one: from there it would be the same step again.
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(sent()).toHaveLength(1);
    await press('come');
    await waitFor(() =>
      expect(sent()).toEqual([
        { parent: null, after: b },
        { parent: null, after: c },
      ]),
    );
  });

  it('leave out what cannot be, and go on', async () => {
    answer(moveItem, { seq: 8, ids: [a] });
    show(<Three />);
    await press('up', 'down');
    await waitFor(() => expect(sent()).toEqual([{ parent: null, after: b }]));
  });

  it('end where one is refused', async () => {
    answer(moveItem, () => {
      throw new Refusal('move-refused', 'Not there.');
    });
    show(<Three />);
    await press('twice');
    await screen.findByText('Not there.');
    await press('come');
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(sent()).toHaveLength(1);
  });
});
