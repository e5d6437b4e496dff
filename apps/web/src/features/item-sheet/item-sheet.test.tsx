import { confirmLinks, createWaiver, explainCoverage, getLinkDifference, getProject, readImpact, removeLinks, sayWhere, withdrawWaiver } from '@coomb/contract';
import type { Field, FieldValue, Kind } from '@coomb/core';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ChakraProvider } from '@chakra-ui/react';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { system } from '../../shared/ui/theme';
import { setPeople } from '../../shared/live/presence';
import { answer, aProject, calls, idOf, Refusal, sentTo, show, usePage } from '../../testing/page';
import { Coverage } from './Coverage';
import { EditImpact } from './EditImpact';
import { FieldEditor, FieldText } from './FieldEditor';
import { HereToo } from './HereToo';
import { ItemEditor } from './ItemEditor';
import type { Sheet } from './queries';
import { Trail } from './Trail';
import type { Written } from './written';

const other = {
  id: idOf(31),
  node: 5,
  reference: 'TC-004',
  title: 'Gate stops in time',
  kind: 'testCase',
  collection: idOf(12),
  heading: false,
  withdrawn: false,
  state: 'verified' as const,
};
const link = {
  id: idOf(41),
  linkKind: 'verifies',
  phrase: 'is verified by',
  end: 'to' as const,
  suspect: true,
  origin: 'made',
  revision: 1,
  usage: null,
  otherUsage: null,
  usagePath: null,
  fields: {},
  other,
};

const sheet = (change: Partial<Sheet> = {}) =>
  ({
    id: idOf(21),
    reference: 'SYS-012',
    upstream: [],
    downstream: [link],
    coverage: [{ rule: 'tested', label: 'Tested', state: 'notMet' }],
    waivers: [],
    ...change,
  }) as unknown as Sheet;

const waiver = { id: idOf(51), item: idOf(21), rule: 'tested', person: 'Ada Brook', reason: 'Shown by analysis', until: '2027-01-31', active: true };

describe('why an item misses a rule', () => {
  usePage();
  const explain = (change: object = {}) =>
    answer(explainCoverage, {
      state: 'notMet',
      sentence: 'Every requirement is verified by a test.',
      paths: [],
      ends: [other],
      usages: [],
      looksFor: 'at least 1 of: test cases',
      ...change,
    });

  it('tells what was looked for and where the search ended', async () => {
    explain();
    show(<Coverage project={aProject.id} sheet={sheet()} />);
    await userEvent.click(screen.getByRole('button', { name: 'Why?' }));
    expect(await screen.findByText('Looked for at least 1 of: test cases.')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'TC-004' }).getAttribute('href')).toContain('item=TC-004');
  });

  it('shows the path that meets it, and marks a suspect one', async () => {
    explain({ state: 'suspect', paths: [{ suspect: true, steps: [{ usage: null, phrase: 'is verified by', item: other }] }], ends: [] });
    show(<Coverage project={aProject.id} sheet={sheet({ coverage: [{ rule: 'tested', label: 'Tested', state: 'suspect' }] })} />);
    await userEvent.click(screen.getByRole('button', { name: 'Why?' }));
    expect(await screen.findByText('is verified by')).toBeTruthy();
    expect(screen.getByText('(suspect)')).toBeTruthy();
  });

  it('waives with a reason only, and says what the server refused', async () => {
    explain();
    let refuse = true;
    answer(createWaiver, ({ body }) => {
      if (refuse) throw new Refusal('input-invalid', 'reason: Say in a few words why the gap is accepted', 400);
      return { ...waiver, ...(body as object), person: 'Ada Brook', active: true, id: idOf(51) };
    });
    show(<Coverage project={aProject.id} sheet={sheet()} />);
    await userEvent.click(screen.getByRole('button', { name: 'Why?' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Accept this gap…' }));
    expect(screen.getByRole('button', { name: 'Accept the gap' })).toHaveProperty('disabled', true);
    await userEvent.type(screen.getByRole('textbox', { name: 'Reason for the waiver' }), 'Shown by analysis');
    await userEvent.click(screen.getByRole('button', { name: 'Accept the gap' }));
    expect(await screen.findByText(/Say in a few words/)).toBeTruthy();
    refuse = false;
    await userEvent.click(screen.getByRole('button', { name: 'Accept the gap' }));
    await waitFor(() =>
      expect(calls.filter(({ call }) => call.startsWith('POST')).at(-1)!.body).toMatchObject({ rule: 'tested', reason: 'Shown by analysis' }),
    );
  });

  it('names who waived, until when and why, and takes it back', async () => {
    answer(withdrawWaiver, { ...waiver, active: false });
    show(<Coverage project={aProject.id} sheet={sheet({ coverage: [{ rule: 'tested', label: 'Tested', state: 'waived' }], waivers: [waiver] })} />);
    expect(screen.getByText(/Ada Brook waived this until 2027-01-31/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Take back' }));
    await waitFor(() => expect(calls.at(-1)!.call).toBe(`POST /projects/${aProject.id}/waivers/${waiver.id}/withdraw`));
  });
});

describe('the trail', () => {
  usePage();

  it('shows the word-level difference before a suspect link is confirmed', async () => {
    answer(getProject, aProject);
    answer(getLinkDifference, {
      linkKind: 'verifies',
      confirmedBy: 'Ada Brook',
      ends: [
        {
          item: { ...other, reference: 'SYS-012' },
          words: [
            { text: 'The gate shall stop within ', type: 'same' },
            { text: '2', type: 'removed' },
            { text: '3', type: 'added' },
            { text: ' seconds', type: 'same' },
          ],
          changedBy: 'Ben Hale',
        },
      ],
    });
    answer(confirmLinks, { seq: 8, ids: [link.id] });
    show(<Trail project={aProject.id} title="Downstream" empty="Nothing" links={[link]} />);
    await userEvent.click(await screen.findByRole('button', { name: 'Suspect' }));
    expect(await screen.findByText(/since Ada Brook confirmed the link, changed by Ben Hale/)).toBeTruthy();
    expect(calls.some(({ call }) => call.endsWith('/confirm'))).toBe(false);
    await userEvent.click(screen.getByRole('button', { name: 'The link still holds' }));
    await waitFor(() => expect(calls.some(({ body }) => JSON.stringify(body) === JSON.stringify({ links: [link.id] }))).toBe(true));
  });

  it('removes a link by its named button', async () => {
    answer(getProject, aProject);
    answer(removeLinks, { seq: 8, ids: [link.id] });
    show(<Trail project={aProject.id} title="Downstream" empty="Nothing" links={[link]} />);
    await userEvent.click(await screen.findByRole('button', { name: 'Remove the link to TC-004' }));
    expect(await screen.findByText('Link removed. Undo brings it back.')).toBeTruthy();
  });
});

/** A field that holds what was last given. */
function Held({ field, start, seen }: { field: Field; start: FieldValue; seen: FieldValue[] }) {
  const [value, setValue] = useState<FieldValue>(start);
  return (
    <FieldEditor
      field={field}
      value={value}
      onChange={(next) => {
        seen.push(next);
        setValue(next);
      }}
    />
  );
}

describe('editing a field by its type', () => {
  usePage();
  const edit = (field: Partial<Field>, start: FieldValue) => {
    const seen: FieldValue[] = [];
    render(
      <ChakraProvider value={system}>
        <Held field={{ id: 'f', label: 'Field', ...field } as Field} start={start} seen={seen} />
      </ChakraProvider>,
    );
    return seen;
  };

  it('gives numbers as numbers, and null when emptied', async () => {
    const seen = edit({ type: 'number' }, 4);
    const input = screen.getByRole('spinbutton', { name: 'Field' });
    await userEvent.clear(input);
    await userEvent.type(input, '12.5');
    expect(seen[0]).toBeNull();
    expect(seen.at(-1)).toBe(12.5);
  });

  it('keeps a value that is no option any more, and lets go of it by choice', async () => {
    const seen = edit({ type: 'choice', options: ['High', 'Low'] }, 'Urgent');
    const select = screen.getByRole('combobox', { name: 'Field' });
    expect([...select.querySelectorAll('option')].map((option) => option.textContent)).toEqual(['–', 'High', 'Low', 'Urgent']);
    await userEvent.selectOptions(select, 'Low');
    await userEvent.selectOptions(select, '–');
    expect(seen).toEqual(['Low', null]);
  });

  it('adds to and takes from several choices', async () => {
    const seen = edit({ type: 'choices', options: ['Test', 'Analysis'] }, ['Test']);
    await userEvent.click(screen.getByRole('checkbox', { name: 'Analysis' }));
    await userEvent.click(screen.getByRole('checkbox', { name: 'Test' }));
    expect(seen).toEqual([['Test', 'Analysis'], ['Analysis']]);
  });

  it('tells yes, no and not said apart', async () => {
    const seen = edit({ type: 'yesNo' }, null);
    const select = screen.getByRole('combobox', { name: 'Field' });
    for (const word of ['Yes', 'No', '–']) await userEvent.selectOptions(select, word);
    expect(seen).toEqual([true, false, null]);
  });

  it.each<[Partial<Field>, FieldValue, string]>([
    [{ type: 'number', unit: 'cm' }, 4, '4 cm'],
    [{ type: 'yesNo' }, false, 'No'],
    [{ type: 'choices' }, ['Test', 'Analysis'], 'Test, Analysis'],
    [{ type: 'text' }, '', ''],
  ])('reads %j of %j as "%s"', (field, value, text) => {
    const { container } = render(
      <ChakraProvider value={system}>
        <p>
          <FieldText field={{ id: 'f', label: 'Field', ...field } as Field} value={value} />
        </p>
      </ChakraProvider>,
    );
    expect(container.textContent).toBe(text);
  });
});

describe('who else is in an item', () => {
  usePage();
  it('tells of others who read or write in it, and of nobody who is elsewhere', async () => {
    answer(sayWhere, { seq: 1 });
    setPeople([
      { name: 'Bo', items: [idOf(21)], writing: [idOf(21)] },
      { name: 'Cy', items: [idOf(21)], writing: [] },
      { name: 'Di', items: [idOf(22)], writing: [idOf(22)] },
    ]);
    show(<HereToo project={idOf(1)} item={idOf(21)} writing />);
    expect(await screen.findByText('Bo is writing here')).toBeTruthy();
    expect(screen.getByText('Cy is here too')).toBeTruthy();
    expect(screen.queryByText(/^Di /)).toBeNull();
    setPeople([]);
    await waitFor(() => expect(screen.queryByText('Bo is writing here')).toBeNull());
  });
});

describe('what an edit that is not stored would touch', () => {
  usePage();
  const kind = { fields: [{ id: 'limit', meaning: true }, { id: 'note' }] } as unknown as Kind;
  const told = (written: Written) => show(<EditImpact project={idOf(1)} reference="SYS-012" written={written} kind={kind} />);
  const none = { total: 0, items: [] };

  it('is said as soon as the item comes to say something else, and leads to all of it', async () => {
    answer(readImpact, { roots: [], downstream: none, upstream: none, stale: [], suspect: 4, already: 1 });
    told({ fields: { limit: 3 } });
    expect(await screen.findByText(/4 links would become suspect beside 1 that is, 0 verification states would be others/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'All that it touches' }).getAttribute('href')).toBe(`/p/${idOf(1)}/link/impact?items=SYS-012`);
    expect(sentTo(/impact$/)).toEqual([{ items: ['SYS-012'], most: 1 }]);
  });

  it('is nothing where what changed bears no meaning, and nothing is asked or said before anything changed', () => {
    told({ fields: { note: 'x' } });
    expect(screen.getByText(/bears no meaning/)).toBeTruthy();
    told({});
    expect(screen.getAllByText(/Once saved/)).toHaveLength(1);
    expect(sentTo(/impact$/)).toEqual([]);
  });
});

describe('writing, at an earlier moment', () => {
  usePage();

  it('is not begun: it is said that nothing can be written there, with a way back to now', async () => {
    sessionStorage.setItem(`coomb.moment.${idOf(1)}`, JSON.stringify({ seq: 4, says: 'change 4' }));
    const item = { title: 'Level', html: '', fields: {}, revision: 1, heading: false, reference: 'SYS-012' };
    const kind = { fields: [] } as unknown as Kind;
    show(<ItemEditor project={idOf(1)} item={item} draftId={idOf(21)} path="" kind={kind} onStore={async () => {}} onDone={() => {}} />);
    expect(await screen.findByText('You look at it as of change 4: nothing can be written there.')).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Back to now' }));
    expect(await screen.findByRole('textbox', { name: 'Title' })).toBeTruthy();
    expect(sessionStorage.getItem(`coomb.moment.${idOf(1)}`)).toBeNull();
  });
});
