import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { findItems, MOST_SOUGHT } from '@coomb/contract';
import { itemScheme } from '@coomb/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { OneLine } from '../ui/one-line';
import { useFocusSoon } from '../ui/use-focus-soon';

interface Props {
  project: string;
  /** Where the words under the caret lead already. */
  address: string;
  /** The address, and the words for it where none are chosen. An empty address takes the link away. */
  onDone: (address: string, words: string) => void;
  onClose: () => void;
}

const isPage = (words: string) => /^(?:https?:\/\/|mailto:)\S+$/i.test(words.trim());

/** Leads words to an item, found by its reference or its words, or to a page. */
export function LinkForm({ project, address, onDone, onClose }: Props) {
  const [words, setWords] = useState(/^(?:https?|mailto):/.test(address) ? address : '');
  const field = useFocusSoon<HTMLInputElement>();
  const [at, setAt] = useState(0);
  const found = useQuery({
    queryKey: [...projectKey(project), 'find', words, 'link'],
    queryFn: ({ signal }) => call(findItems, { params: { project }, query: { words: words.slice(0, MOST_SOUGHT), most: 8 }, signal }),
    placeholderData: keepPreviousData,
    enabled: words.trim() !== '' && !isPage(words),
  });
  const items = words.trim() && !isPage(words) ? (found.data ?? []) : [];
  const chosen = Math.min(at, items.length - 1);
  const list = useId();
  const choose = (index: number) => {
    const item = items[index];
    if (isPage(words)) onDone(words.trim(), words.trim());
    else if (item) onDone(`${itemScheme}${item.id}`, item.reference || item.title);
  };
  return (
    <Box p="2" borderTopWidth="1px" bg="bg.subtle">
      <Flex gap="2" align="center" wrap="wrap">
        <Input
          size="xs"
          flex="1"
          minW="180px"
          bg="bg.panel"
          aria-label="Link to"
          role="combobox"
          aria-expanded={items.length > 0}
          aria-controls={list}
          aria-activedescendant={items.length > 0 ? `${list}-${chosen}` : undefined}
          placeholder="A reference, words of an item, or the address of a page"
          value={words}
          ref={field}
          onChange={(event) => {
            setWords(event.target.value);
            setAt(0);
          }}
          onKeyDown={(event) => {
            if (event.key === 'ArrowDown') setAt(Math.min(chosen + 1, items.length - 1));
            else if (event.key === 'ArrowUp') setAt(Math.max(chosen - 1, 0));
            else if (event.key === 'Enter') choose(chosen);
            else if (event.key === 'Escape') onClose();
            else return;
            event.preventDefault();
            event.stopPropagation();
          }}
        />
        {address && (
          <Button size="2xs" variant="outline" onClick={() => onDone('', '')}>
            No link
          </Button>
        )}
        <Button size="2xs" variant="ghost" onClick={onClose}>
          Close
        </Button>
      </Flex>
      <Box role="listbox" id={list} aria-label="Items to link to" mt="1" maxH="180px" overflow="auto">
        {items.map((item, index) => (
          <Flex
            key={item.id}
            id={`${list}-${index}`}
            role="option"
            aria-selected={index === chosen}
            gap="2"
            px="2"
            py="0.5"
            cursor="pointer"
            bg={index === chosen ? 'moss.subtle' : undefined}
            onMouseMove={() => setAt(index)}
            onClick={() => choose(index)}
          >
            <Box fontFamily="mono" fontSize="12px" flexShrink={0}>
              {item.reference}
            </Box>
            <OneLine text={item.title} />
          </Flex>
        ))}
      </Box>
      {words.trim() && !isPage(words) && found.data?.length === 0 && <Box color="fg.muted">No item says that.</Box>}
    </Box>
  );
}
