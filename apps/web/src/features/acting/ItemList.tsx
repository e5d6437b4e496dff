import { Flex } from '@chakra-ui/react';
import type { Brief } from '@coomb/contract';
import type { Condition } from '@coomb/core';
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { useAtHand } from '../../shared/marks/at-hand';
import { useItemAddress } from '../../shared/ui/reference';
import { WorkList } from '../../shared/ui/work-list';
import { type Act, ActBar } from './ActBar';
import { AsRegister } from './AsRegister';

interface Props<Item extends Brief> {
  label: string;
  items: readonly Item[];
  /** The finding that an item stands for, where the list is one of findings that may be waived. */
  findingOf?: ((item: Item) => string) | undefined;
  /** What the items have in common, where the list shows all of them and nothing else. */
  common?: Condition | undefined;
  /** In place of the list while it has no items. */
  empty?: ReactNode;
  /** What a lens does not light. */
  isFaint?: ((item: Item) => boolean) | undefined;
  children: (item: Item) => ReactNode;
}

/** Items of which some are chosen, and what may be done with them. */
export function ItemList<Item extends Brief>({ label, items, findingOf, common, empty, isFaint, children }: Props<Item>) {
  const project = useProject();
  const itemAddress = useItemAddress();
  const navigate = useNavigate();
  const [place, setPlace] = useState(0);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [act, setAct] = useState<Act>();
  const marked = Math.max(0, Math.min(place, items.length - 1));
  const kept = items.filter(({ id }) => chosen.has(id));
  const targets = kept.length > 0 ? kept : items[marked] ? [items[marked]] : [];
  useAtHand(targets);
  const open = (index: number) => void navigate(itemAddress(items[index]!.reference));
  const acts: Record<string, Act> = { c: 'confirm', e: 'field', h: 'hand', w: 'waive' };
  return (
    <Flex direction="column" h="100%" bg="bg.panel" borderTopWidth="1px">
      <ActBar
        project={project.id}
        total={items.length}
        chosen={kept.length}
        items={targets}
        findings={findingOf && targets.map(findingOf)}
        act={act}
        setAct={setAct}
        onDone={() => setChosen(new Set())}
      >
        <AsRegister items={kept.length > 0 ? kept : items} common={kept.length > 0 ? undefined : common} />
      </ActBar>
      {items.length === 0 && empty ? (
        empty
      ) : (
        <WorkList
          label={label}
          count={items.length}
          rowHeight={28}
          keyOf={(index) => items[index]!.id}
          nameOf={(index) => `${items[index]!.reference} ${items[index]!.title}`}
          marked={marked}
          onMark={setPlace}
          chosen={new Set(kept.map(({ id }) => id))}
          onChoose={setChosen}
          isFaint={isFaint && ((index) => isFaint(items[index]!))}
          onKey={(key, index) => {
            if (key === 'Enter' || key === 'o') open(index);
            else if (acts[key]) setAct(acts[key]);
            else return false;
            return true;
          }}
        >
          {(index) => children(items[index]!)}
        </WorkList>
      )}
    </Flex>
  );
}
