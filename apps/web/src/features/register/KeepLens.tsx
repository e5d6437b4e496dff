import { Box, Button, Field, Input } from '@chakra-ui/react';
import { readLensText } from '@coomb/contract';
import type { RegisterWhat } from '@coomb/core';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { useMoments } from '../../shared/live/use-moments';
import { lookThrough } from '../../shared/lens/through';
import { useKeepView, useSavedViews } from '../../shared/saved-views/queries';
import { Choice } from '../../shared/ui/choice';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { usePersons } from '../../shared/ui/person-mark';

/** Keeps kinds and conditions of a register as a lens, and looks through it. */
export function KeepLens({ what }: { what: RegisterWhat }) {
  const { id: project } = useProject();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [note, setNote] = useState('');
  const [owner, setOwner] = useState('');
  const [moment, setMoment] = useState('0');
  const moments = useMoments(project).options;
  const persons = usePersons().data ?? [];
  const [others, setOthers] = useState<'shown' | 'hidden'>('shown');
  const keep = useKeepView(project);
  const saved = useSavedViews(project).data ?? [];
  const known = saved.find((one) => one.sort === 'lens' && one.name.toLowerCase() === name.trim().toLowerCase());
  const before = readLensText(String(known?.body?.lens ?? ''));
  const doKeep = () =>
    keep.mutate(
      {
        ...{ sort: 'lens', name: known?.name ?? name.trim() },
        // Items that were pinned to a lens of that name stay so.
        body: {
          lens: JSON.stringify({ kinds: what.kinds, others, conditions: what.conditions, match: what.match, pinned: before?.pinned, leftOut: before?.leftOut }),
          note,
          owner,
          moment: Number(moment),
        },
      },
      {
        onSuccess: ({ id }) => {
          lookThrough(project, { lens: id, mode: 'only' });
          setOpen(false);
        },
      },
    );
  return (
    <>
      <Button size="2xs" variant="outline" onClick={() => setOpen(true)} title="Look at every view through what passes these conditions">
        Keep as a lens…
      </Button>
      {open && (
        <AskDialog
          title="Keep as a lens"
          says="What passes these conditions can be looked through in every view; more items can be pinned to it, or left out, by hand."
          verb={known ? 'Keep it anew' : 'Keep'}
          busy={keep.isPending}
          disabled={name.trim() === ''}
          onDo={doKeep}
          onClose={() => setOpen(false)}
        >
          <Field.Root>
            <Field.Label fontSize="13px" fontWeight="400" color="fg.muted">
              Name
            </Field.Label>
            <Input size="sm" autoFocus value={name} maxLength={120} onChange={(event) => setName(event.target.value)} />
          </Field.Root>
          {what.kinds.length > 0 && (
            <Choice
              label="Items of other kinds"
              value={others}
              width="100%"
              options={[
                { value: 'shown', label: 'items of other kinds are shown, all of them' },
                { value: 'hidden', label: 'items of other kinds are not shown' },
              ]}
              onChange={(value) => setOthers(value as 'shown')}
            />
          )}
          {known && <Box fontSize="13px">A lens of this name is kept already; it will be this one.</Box>}
          <Field.Root>
            <Field.Label fontSize="13px" fontWeight="400" color="fg.muted">
              What it is for (may stay empty)
            </Field.Label>
            <Input size="sm" value={note} maxLength={1000} onChange={(event) => setNote(event.target.value)} />
          </Field.Root>
          <Field.Root>
            <Field.Label fontSize="13px" fontWeight="400" color="fg.muted">
              Whose it is (whoever keeps it, where nobody is said)
            </Field.Label>
            <Input size="sm" list="lens-owners" value={owner} maxLength={120} onChange={(event) => setOwner(event.target.value)} />
            <datalist id="lens-owners">
              {persons.map(({ id, name: person }) => (
                <option key={id} value={person} />
              ))}
            </datalist>
          </Field.Root>
          <Choice
            label="Moment that belongs to it"
            value={moment}
            width="100%"
            options={[
              { value: '0', label: 'looked through at any moment' },
              ...moments.map(({ value, label }) => ({ value, label: `for the moment of ${label}` })),
            ]}
            onChange={setMoment}
          />
        </AskDialog>
      )}
    </>
  );
}
