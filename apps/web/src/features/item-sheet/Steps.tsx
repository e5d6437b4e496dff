import { Box, Button, Flex, IconButton, Input } from '@chakra-ui/react';
import type { ItemSheet, OutlineReply } from '@coomb/contract';
import { type AllowedLink, counted, findAllowedLinks, findKindOfRole, hasRole, phraseAt, type Scheme } from '@coomb/core';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { notify } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { Reference } from '../../shared/ui/reference';
import { useAddRelated } from '../../shared/live/add-related';
import { useAddItem, useMoveItem } from './queries';
import { findSteps, numberOfStep } from './step-number';

/** Whether an item is written as steps: a use case, or a step that has steps of its own. */
export const hasSteps = (scheme: Scheme, { kind, heading }: Pick<ItemSheet, 'kind' | 'heading'>) =>
  !heading && (hasRole(scheme, kind, 'useCase') || hasRole(scheme, kind, 'step')) && scheme.kinds.some((one) => !one.retired && one.roles?.includes('step'));

/** A use case as numbered steps: added one after the other, put in order, and a requirement made from each in one action. */
export function Steps({ sheet }: { sheet: ItemSheet }) {
  const project = useProject();
  const outline = useOutline().data;
  const add = useAddItem(project.id);
  const move = useMoveItem(project.id);
  const [title, setTitle] = useState('');
  const [making, setMaking] = useState<string>();
  const { scheme } = project;
  const kind = findKindOfRole(scheme, 'step');
  if (!outline || !kind) return null;
  const row = outline.id.indexOf(sheet.id);
  const steps = row < 0 ? [] : findSteps(scheme, outline, row);
  const swap = (at: number, by: -1 | 1) => {
    const id = outline.id[steps[at]!]!;
    // It stands after the one before its new place, or first.
    const after = by < 0 ? (at >= 2 ? outline.id[steps[at - 2]!]! : null) : outline.id[steps[at + 1]!]!;
    move.mutate({ id, parent: sheet.id, after });
  };
  return (
    <Box role="list" aria-label={`Steps of ${sheet.reference}`} fontSize="13.5px">
      {steps.map((step, at) => (
        <StepLine
          key={outline.id[step]}
          outline={outline}
          row={step}
          isFirst={at === 0}
          isLast={at === steps.length - 1}
          onMove={(by) => swap(at, by)}
          making={making === outline.id[step]}
          onMake={(open) => setMaking(open ? outline.id[step] : undefined)}
        />
      ))}
      {!sheet.withdrawn && (
        <Flex
          as="form"
          gap="2"
          pt="1.5"
          align="center"
          onSubmit={(event) => {
            event.preventDefault();
            if (!title.trim()) return;
            const last = steps.at(-1);
            add.mutate(
              { collection: sheet.collection, kind: kind.id, title: title.trim(), parent: sheet.id, ...(last !== undefined && { after: outline.id[last]! }) },
              { onSuccess: () => setTitle('') },
            );
          }}
        >
          <Box w="2.2em" textAlign="right" color="fg.muted" fontVariantNumeric="tabular-nums">
            {steps.length + 1}
          </Box>
          <Input
            size="2xs"
            flex="1"
            aria-label="The next step"
            placeholder="What happens next; Enter adds it"
            value={title}
            maxLength={500}
            onChange={(event) => setTitle(event.target.value)}
          />
          <Button size="2xs" type="submit" variant="outline" disabled={!title.trim()} loading={add.isPending}>
            Add
          </Button>
        </Flex>
      )}
    </Box>
  );
}

interface LineProps {
  outline: OutlineReply;
  row: number;
  isFirst: boolean;
  isLast: boolean;
  onMove: (by: -1 | 1) => void;
  making: boolean;
  onMake: (open: boolean) => void;
}

function StepLine({ outline, row, isFirst, isLast, onMove, making, onMake }: LineProps) {
  const { scheme } = useProject();
  const links = outline.up[row]! + outline.down[row]!;
  const way = findWay(scheme, scheme.kinds[outline.kind[row]!]!.id);
  return (
    <Box role="listitem" borderTopWidth="1px" py="0.5">
      <Flex gap="2" align="center">
        <Box w="2.2em" textAlign="right" color="fg.muted" fontVariantNumeric="tabular-nums">
          {numberOfStep(scheme, outline, row)}
        </Box>
        <OneLine flex="1" fontFamily="serif" fontSize="15px" text={outline.title[row]!} />
        <Reference reference={outline.reference[row]!} />
        <Box fontSize="12px" color={links > 0 ? 'moss.fg' : 'fg.subtle'} w="4.5em" textAlign="right">
          {links > 0 ? counted(links, 'link') : 'no link'}
        </Box>
        {way && (
          <Button
            size="2xs"
            variant="ghost"
            aria-expanded={making}
            onClick={() => onMake(!making)}
            title={`Make a requirement: this step ${phraseAt(way.linkKind, way.reversed ? 'to' : 'from')} it`}
          >
            Requirement…
          </Button>
        )}
        <IconButton size="2xs" variant="ghost" aria-label={`Move step up: ${outline.title[row]}`} disabled={isFirst} onClick={() => onMove(-1)}>
          <ArrowUp size={12} />
        </IconButton>
        <IconButton size="2xs" variant="ghost" aria-label={`Move step down: ${outline.title[row]}`} disabled={isLast} onClick={() => onMove(1)}>
          <ArrowDown size={12} />
        </IconButton>
      </Flex>
      {making && way && <MakeRequirement step={outline.id[row]!} title={outline.title[row]!} way={way} onDone={() => onMake(false)} />}
    </Box>
  );
}

type Way = AllowedLink & { kind: string };

/** How a step is joined with a requirement: what refines it first, else what satisfies it, else what may. */
function findWay(scheme: Scheme, step: string): Way | undefined {
  const requirement = findKindOfRole(scheme, 'requirement');
  if (!requirement) return undefined;
  const ways = findAllowedLinks(scheme, step, requirement.id);
  const way = ways.find(({ linkKind }) => linkKind.role === 'refines') ?? ways.find(({ linkKind }) => linkKind.role === 'satisfies') ?? ways[0];
  return way && { ...way, kind: requirement.id };
}

function MakeRequirement({ step, title, way, onDone }: { step: string; title: string; way: Way; onDone: () => void }) {
  const project = useProject();
  const make = useAddRelated(project.id);
  const [text, setText] = useState(title);
  return (
    <Flex
      as="form"
      gap="2"
      pl="2.8em"
      py="1"
      onSubmit={(event) => {
        event.preventDefault();
        if (!text.trim()) return;
        make.mutate(
          { item: step, title: text.trim(), kind: way.kind, linkKind: way.linkKind.id, reversed: way.reversed },
          {
            onSuccess: (made) => {
              notify('reference' in made ? `${made.reference} was made where requirements are at home, and linked.` : 'Made and linked.');
              onDone();
            },
          },
        );
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        onDone();
      }}
    >
      <Input
        size="2xs"
        flex="1"
        autoFocus
        aria-label="Title of the requirement"
        value={text}
        maxLength={500}
        onChange={(event) => setText(event.target.value)}
      />
      <Button size="2xs" type="submit" disabled={!text.trim()} loading={make.isPending}>
        Make it
      </Button>
    </Flex>
  );
}
