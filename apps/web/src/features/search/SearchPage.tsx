import { Box, Flex, Input } from '@chakra-ui/react';
import { figure, stateWords } from '@coomb/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useProject } from '../../shared/live/project-queries';
import { useAtHand } from '../../shared/marks/at-hand';
import { EmptyState, ErrorNote } from '../../shared/ui/feedback';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { Reference, useItemAddress } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import { WorkList } from '../../shared/ui/work-list';
import { MOST_FOUND, useFound } from './queries';
import { type Act, ActBar } from '../acting/ActBar';

const address = z.object({ words: z.string().default('') });

/** What was found, as a list that acts. */
export function SearchPage() {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [{ words }, set] = useAddress(address);
  const found = useFound(project.id, words);
  const [place, setPlace] = useState(0);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [act, setAct] = useState<Act>();
  const items = words.trim() === '' ? [] : (found.data ?? []);
  const marked = Math.max(0, Math.min(place, items.length - 1));
  const kept = items.filter(({ id }) => chosen.has(id));
  const targets = kept.length > 0 ? kept : items[marked] ? [items[marked]] : [];
  useAtHand(targets);
  if (found.error) return <ErrorNote error={found.error} retry={() => void found.refetch()} />;
  const acts: Record<string, Act> = { h: 'hand', e: 'field' };
  return (
    <Page
      fill
      lead={items.length === MOST_FOUND ? `The ${figure(MOST_FOUND)} that fit best` : undefined}
      actions={
        <Input
          size="xs"
          w="260px"
          bg="bg.panel"
          autoFocus={words === ''}
          aria-label="Words"
          placeholder="Words of an item"
          value={words}
          onChange={(event) => set({ words: event.target.value })}
        />
      }
    >
      <Flex direction="column" h="100%" bg="bg.panel" borderTopWidth="1px">
        <ActBar project={project.id} total={items.length} chosen={kept.length} items={targets} act={act} setAct={setAct} onDone={() => setChosen(new Set())} />
        {items.length === 0 ? (
          <EmptyState title={words.trim() ? 'Nothing says so' : 'What are you looking for?'}>
            Items are found by words of their references, titles, texts, fields and sources.
          </EmptyState>
        ) : (
          <WorkList
            label="Found items"
            count={items.length}
            rowHeight={28}
            keyOf={(index) => items[index]!.id}
            nameOf={(index) => `${items[index]!.reference} ${items[index]!.title}`}
            marked={marked}
            onMark={setPlace}
            chosen={new Set(kept.map(({ id }) => id))}
            onChoose={setChosen}
            onKey={(key, index) => {
              if (key === 'Enter' || key === 'o') void navigate(itemAddress(items[index]!.reference));
              else if (acts[key]) setAct(acts[key]);
              else return false;
              return true;
            }}
          >
            {(index) => {
              const { reference, title, state, excerpt } = items[index]!;
              return (
                <>
                  <StateMark state={state} bare />
                  <Reference reference={reference} w="6em" flexShrink={0} />
                  <OneLine flex="1 1 40%" minW="0" fontFamily="serif" text={title} />
                  <OneLine
                    flex="1 1 45%"
                    minW="0"
                    fontSize="12.5px"
                    color="fg.muted"
                    text={excerpt ? `${excerpt.where ? `${excerpt.where}: ` : ''}${excerpt.text}` : ''}
                  />
                  <Box w="8em" color="fg.muted" fontSize="12.5px">
                    {stateWords[state].label}
                  </Box>
                </>
              );
            }}
          </WorkList>
        )}
      </Flex>
    </Page>
  );
}
