import { createLinks, getProject, planLinks } from '@coomb/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeEach, describe, expect, it } from 'vitest';
import { AddRelated } from '../features/linking/AddRelated';
import { JoinDialog } from '../features/linking/JoinDialog';
import { useAtHand } from '../shared/marks/at-hand';
import { aBrief, answer, aProject, idOf, sentTo, show, usePage } from '../testing/page';
import { MarksLine } from './MarksLine';
import { useJoining } from './use-joining';

const items = [aBrief(1, 'Level'), aBrief(2, 'Flow'), aBrief(3, 'Gate')];

/** A view with one item at hand at a time, and what the frame hangs around it. */
function View() {
  const [at, setAt] = useState(0);
  const joins = useJoining(aProject.id, aProject.scheme);
  useAtHand([items[at]!]);
  return (
    <>
      {items.map((item, index) => (
        <button type="button" key={item.id} onClick={() => setAt(index)}>
          go to {item.reference}
        </button>
      ))}
      <MarksLine project={aProject.id} onJoin={joins.join} />
      {joins.joining && <JoinDialog {...joins.joining} onClose={joins.leave} onDone={joins.done} />}
      {joins.adding && <AddRelated item={joins.adding} onClose={joins.leave} />}
    </>
  );
}

describe('marking here and linking there', () => {
  usePage();
  beforeEach(() => {
    sessionStorage.clear();
    answer(getProject, aProject);
    answer(createLinks, { seq: 8, ids: [idOf(70)] });
    answer(planLinks, [
      { linkKind: 'derives', reversed: true, makes: 2, refused: 0, says: [] },
      { linkKind: 'derives', reversed: false, makes: 1, refused: 1, says: ['SYS-001 is derived from SYS-003 already.'] },
    ]);
  });
  const go = (reference: string) => userEvent.click(screen.getByText(`go to ${reference}`));

  it('says what will be made and what is refused before it links each with each', async () => {
    show(<View />);
    await screen.findByText('go to SYS-001');
    await userEvent.keyboard('.');
    await go('SYS-002');
    await userEvent.keyboard('.');
    expect(screen.getByRole('group', { name: 'Marked to be linked' }).textContent).toContain('SYS-001, SYS-002');
    await go('SYS-003');
    await userEvent.keyboard(';');
    expect(await screen.findByText('makes 2 links')).toBeTruthy();
    expect(sentTo(/links\/plan/)).toEqual([{ left: [idOf(101), idOf(102)], right: [idOf(103)] }]);
    await userEvent.keyboard('2');
    expect(await screen.findByText('SYS-001 is derived from SYS-003 already.')).toBeTruthy();
    await userEvent.keyboard('1');
    await userEvent.click(screen.getByRole('button', { name: 'Make 2 links' }));
    await waitFor(() =>
      expect(sentTo(/\/links$/)).toEqual([{ links: [101, 102].map((item) => ({ linkKind: 'derives', from: idOf(103), to: idOf(item) })), skipRefused: true }]),
    );
    await waitFor(() => expect(screen.queryByRole('group', { name: 'Marked to be linked' })).toBeNull());
  });

  it('takes the second side from marks where there are some', async () => {
    show(<View />);
    await screen.findByText('go to SYS-001');
    await userEvent.keyboard('.');
    await go('SYS-003');
    await userEvent.keyboard(',');
    await go('SYS-002');
    await userEvent.keyboard(';');
    await screen.findByText('makes 2 links');
    expect(sentTo(/links\/plan/)).toEqual([{ left: [idOf(101)], right: [idOf(103)] }]);
  });

  it('says what to do where nothing is marked, or one stands at what is', async () => {
    show(<View />);
    await screen.findByText('go to SYS-001');
    await userEvent.keyboard(';');
    expect(await screen.findByText(/Mark an item with “\.”/)).toBeTruthy();
    await userEvent.keyboard('.;');
    expect(await screen.findByText(/Go to the item at the other end/)).toBeTruthy();
    await userEvent.keyboard('.');
    expect(screen.queryByRole('group', { name: 'Marked to be linked' })).toBeNull();
  });
});
