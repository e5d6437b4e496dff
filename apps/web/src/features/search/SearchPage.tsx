import { MOST_SOUGHT } from '@coomb/contract';
import { Box, Input } from '@chakra-ui/react';
import { figure, stateWords } from '@coomb/core';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useFiguresLens } from '../../shared/lens/use-figures-lens';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { useProject } from '../../shared/live/project-queries';
import { EmptyState, ErrorNote } from '../../shared/ui/feedback';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import { MOST_FOUND, useFound } from './queries';
import { ItemList } from '../acting/ItemList';

const address = z.object({ words: z.string().default('') });

/** What was found, as a list that acts. */
export function SearchPage() {
  const project = useProject();
  const [{ words }, set] = useAddress(address);
  const { part } = useFiguresLens();
  const through = useIsSeen();
  const found = useFound(project.id, words, part);
  const items = words.trim() === '' ? [] : (found.data ?? []);
  if (found.error) return <ErrorNote error={found.error} retry={() => void found.refetch()} />;
  return (
    <Page
      fill
      lead={
        [
          items.length === MOST_FOUND && `The ${figure(MOST_FOUND)} that fit best`,
          part.lens && `Only what is seen through “${through?.name ?? 'the lens'}” is found.`,
        ]
          .filter(Boolean)
          .join('. ') || undefined
      }
      actions={
        <Input
          size="xs"
          w="260px"
          bg="bg.panel"
          autoFocus={words === ''}
          aria-label="Words"
          placeholder="Words of an item"
          maxLength={MOST_SOUGHT}
          value={words}
          onChange={(event) => set({ words: event.target.value })}
        />
      }
    >
      <ItemList
        label="Found items"
        items={items}
        isFaint={through?.mode === 'lit' ? ({ id }) => !through.isSeen(id) : undefined}
        empty={
          <EmptyState title={words.trim() ? 'Nothing says so' : 'What are you looking for?'}>
            Items are found by words of their references, titles, texts, fields and sources.
          </EmptyState>
        }
      >
        {({ reference, title, state, excerpt }) => (
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
        )}
      </ItemList>
    </Page>
  );
}
