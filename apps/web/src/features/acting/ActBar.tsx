import { Box, Button, Flex } from '@chakra-ui/react';
import type { Brief, ErrandSort } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { type ReactNode, useState } from 'react';
import { useThrough } from '../../shared/lens/through';
import { readMarks, writeMarks } from '../../shared/marks/marks';
import { notify } from '../../shared/ui/notices';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { ChangeItemsDialog } from './ChangeItemsDialog';
import { ConfirmDialog } from './ConfirmDialog';
import { HandOnDialog, WaiveDialog } from './dialogs';
import { type About, useWithdrawMany } from './queries';
import { LensHold } from './LensHold';
import { WaiveItemsDialog } from './WaiveItemsDialog';

export type Act = 'field' | 'move' | 'hand' | 'waive' | 'confirm';

interface Props {
  project: string;
  /** How many items the list has, and which of them something is done with: the chosen ones, else the marked one. */
  total: number;
  chosen: number;
  items: readonly Brief[];
  /** Keys of the findings that they stand for, where the list is one of findings that may be waived. */
  findings?: readonly string[] | undefined;
  /** What is handed on, and as what, where that is more than the items. */
  about?: readonly About[] | undefined;
  sort?: ErrandSort;
  what?: string;
  act: Act | undefined;
  setAct: (act: Act | undefined) => void;
  onDone: () => void;
  children?: ReactNode;
}

/** What may be done with items of any list: each says first what it will do, and is one undo. */
export function ActBar({ project, total, chosen, items, findings, about, sort = 'look', what = 'item', act, setAct, onDone, children }: Props) {
  const withdraw = useWithdrawMany(project);
  const lens = useThrough(project);
  const [withdrawing, setWithdrawing] = useState(false);
  const none = items.length === 0;
  const done = () => {
    setAct(undefined);
    onDone();
  };
  const close = () => setAct(undefined);
  const mark = () => {
    const { second } = readMarks(project);
    writeMarks(project, { first: items.map(({ id, reference, title, kind }) => ({ id, reference, title, kind })), second });
    notify(`Marked: ${counted(items.length, 'item')}. Go anywhere, and press “;” to link.`);
  };
  const button = (label: string, run: () => void, title: string) => (
    <Button size="2xs" variant="outline" disabled={none} onClick={run} title={title}>
      {label}
    </Button>
  );
  return (
    <Flex align="center" gap="2" px="4" minH="36px" py="1" wrap="wrap" flexShrink={0} borderBottomWidth="1px" fontSize="13px" color="fg.muted">
      <Box fontWeight="600" color="fg" flexShrink={0}>
        {chosen > 0 ? `${figure(chosen)} chosen of ${figure(total)}` : counted(total, what)}
      </Box>
      <Box flex="1" />
      {children}
      {button('Mark to link', mark, 'They stay marked over pages; “;” links them with what is at hand there (.)')}
      {button('Waive…', () => setAct('waive'), findings ? 'Accept the gap, with a reason (W)' : 'Accept that they miss a rule, with a reason (W)')}
      {button('Set a field…', () => setAct('field'), 'One value for all of them (E)')}
      {button('Move…', () => setAct('move'), 'Below a section of their collection')}
      {button('Confirm links…', () => setAct('confirm'), 'Their suspect links hold, with a reason (C)')}
      {lens && <LensHold project={project} lens={lens.lens} items={items} onDone={onDone} />}
      {button('Hand on…', () => setAct('hand'), 'To a person, who has them in hand then (H)')}
      {button(
        'Withdraw',
        () => (items.length === 1 ? withdraw.mutate(items.map(({ id }) => id)) : setWithdrawing(true)),
        'History, links and references survive (Delete)',
      )}
      {(act === 'field' || act === 'move') && <ChangeItemsDialog way={act} items={items} onClose={close} onDone={done} />}
      {act === 'hand' && (
        <HandOnDialog
          project={project}
          sort={sort}
          what={what}
          about={about ?? items.map(({ id }, at) => ({ item: id, ...(findings?.[at] && { finding: findings[at] }) }))}
          onClose={close}
          onDone={done}
        />
      )}
      {act === 'confirm' && <ConfirmDialog project={project} items={items} onClose={close} onDone={done} />}
      {act === 'waive' &&
        (findings ? (
          <WaiveDialog project={project} findings={findings} onClose={close} onDone={done} />
        ) : (
          <WaiveItemsDialog items={items} onClose={close} onDone={done} />
        ))}
      {withdrawing && (
        <AskWithdraw
          items={items}
          busy={withdraw.isPending}
          onDo={() =>
            withdraw.mutate(
              items.map(({ id }) => id),
              {
                onSuccess: () => {
                  setWithdrawing(false);
                  done();
                },
              },
            )
          }
          onClose={() => setWithdrawing(false)}
        />
      )}
    </Flex>
  );
}

function AskWithdraw({ items, busy, onDo, onClose }: { items: readonly Brief[]; busy: boolean; onDo: () => void; onClose: () => void }) {
  const many = counted(items.length, 'item');
  return (
    <AskDialog
      title={`Withdraw ${many}`}
      says="They and all that stands below them go out of every list and figure. Their history, links and references survive; undo brings them back."
      verb={`Withdraw ${many}`}
      busy={busy}
      onDo={onDo}
      onClose={onClose}
    />
  );
}
