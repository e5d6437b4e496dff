import { Field, Input, Textarea } from '@chakra-ui/react';
import type { ErrandSort } from '@coomb/contract';
import { counted } from '@coomb/core';
import { type ReactNode, useState } from 'react';
import { readPerson } from '../../shared/api/person';
import { notify } from '../../shared/ui/notices';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { PersonField } from './PersonField';
import { type About, useGiveErrands, useWaiveFindings } from './queries';

const label = (text: string, field: ReactNode) => (
  <Field.Root>
    <Field.Label fontSize="13px" fontWeight="400" color="fg.muted">
      {text}
    </Field.Label>
    {field}
  </Field.Root>
);

/** Asks why: what is written is kept where it can be read later. */
export function ReasonDialog({
  title,
  says,
  verb,
  busy,
  disabled = false,
  onDo,
  onClose,
}: {
  title: string;
  says: ReactNode;
  verb: string;
  busy: boolean;
  disabled?: boolean;
  onDo: (reason: string) => void;
  onClose: () => void;
}) {
  const [reason, setReason] = useState('');
  return (
    <AskDialog
      title={title}
      says={says}
      verb={verb}
      busy={busy}
      disabled={disabled || reason.trim().length < 5}
      onDo={() => onDo(reason.trim())}
      onClose={onClose}
    >
      {label('Why', <Textarea size="sm" rows={2} autoFocus value={reason} maxLength={1000} onChange={(event) => setReason(event.target.value)} />)}
    </AskDialog>
  );
}

interface WaiveProps {
  project: string;
  findings: readonly string[];
  /** What chooses them, above the reason. */
  children?: ReactNode;
  onClose: () => void;
  onDone: () => void;
}

/** Accepts findings by name. */
export function WaiveDialog({ project, findings, children, onClose, onDone }: WaiveProps) {
  const [reason, setReason] = useState('');
  const [approver, setApprover] = useState('');
  const [until, setUntil] = useState('');
  const waive = useWaiveFindings(project);
  const many = counted(findings.length, 'finding');
  return (
    <AskDialog
      title={`Waive ${many}`}
      says="They are accepted as they are, by you. Figures count them as waived, with the reason beside them; undo takes all of it back."
      verb={`Waive ${many}`}
      busy={waive.isPending}
      disabled={findings.length === 0 || reason.trim().length < 5}
      onDo={() =>
        waive.mutate(
          { findings: [...findings], reason: reason.trim(), approver: approver.trim() || null, until: until || null },
          {
            onSuccess: () => {
              notify(`Waived: ${many}. Undo takes it back.`);
              onDone();
            },
          },
        )
      }
      onClose={onClose}
    >
      {children}
      {label(
        'Why is this accepted?',
        <Textarea size="sm" rows={2} autoFocus value={reason} maxLength={2000} onChange={(event) => setReason(event.target.value)} />,
      )}
      <PersonField label="Agreed by (nobody else, where it is left empty)" value={approver} onChange={setApprover} />
      {label('Until (for good, where it is left empty)', <Input size="sm" type="date" value={until} onChange={(event) => setUntil(event.target.value)} />)}
    </AskDialog>
  );
}

/** Hands things on to a person, or takes them on oneself. */
export function HandOnDialog({
  project,
  sort,
  about,
  what,
  note: proposed = '',
  onClose,
  onDone,
}: {
  project: string;
  sort: ErrandSort;
  about: readonly About[];
  /** What one of them is called: "finding". */
  what: string;
  /** What the note says unless it is written otherwise. */
  note?: string;
  onClose: () => void;
  onDone: () => void;
}) {
  const [owner, setOwner] = useState('');
  const [note, setNote] = useState(proposed);
  const give = useGiveErrands(project);
  const many = counted(about.length, what);
  const isMe = owner.trim() === readPerson();
  return (
    <AskDialog
      title={`Who takes ${about.length === 1 ? 'this' : 'these'}?`}
      says={`${many}: whoever is named has ${about.length === 1 ? 'it' : 'them'} in hand, and everybody sees so.`}
      verb={isMe ? 'Take on' : 'Hand on'}
      busy={give.isPending}
      disabled={owner.trim() === ''}
      onDo={() =>
        give.mutate(
          { sort, owner: owner.trim(), note: note.trim(), about: [...about] },
          {
            onSuccess: () => {
              notify(isMe ? `You have ${many} in hand.` : `${owner.trim()} has ${many} in hand now.`);
              onDone();
            },
          },
        )
      }
      onClose={onClose}
    >
      <PersonField label="Person" value={owner} onChange={setOwner} autoFocus />
      {label('A note (may stay empty)', <Input size="sm" value={note} maxLength={1000} onChange={(event) => setNote(event.target.value)} />)}
    </AskDialog>
  );
}
