import { Box, Button, Flex, IconButton } from '@chakra-ui/react';
import { readKeyText } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { Palette, X } from 'lucide-react';
import { Link } from 'react-router';
import { colourBy } from '../shared/colour-key/key-on';
import { useColours } from '../shared/colour-key/fills';
import { useSavedViews } from '../shared/saved-views/queries';
import { useProject } from '../shared/live/project-queries';
import { addressOfEntry } from '../shared/colour-key/address-of-entry';
import { Filled } from '../shared/ui/reference';
import { OneLine } from '../shared/ui/one-line';
import { KeptList } from './KeptList';
import { KeyFile } from './KeyFile';
import { LookButton } from './LookButton';

const MOST_SHOWN = 6;

/** The colour key that is on, beside what it colours: its entries with how many items have each. */
export function KeyChoice({ project }: { project: string }) {
  const colours = useColours(project);
  const keys = (useSavedViews(project).data ?? []).filter(({ sort }) => sort === 'colourKey');
  const { data } = colours ?? {};
  const { scheme } = useProject();
  const key = readKeyText(String(keys.find(({ id }) => id === colours?.key)?.body?.key ?? ''));
  const name = colours && (keys.find(({ id }) => id === colours.key)?.name ?? data?.name ?? 'a key');
  const choose = (id: string | undefined) => colourBy(project, id);
  return (
    <Flex align="center" minW="0" gap="1">
      <LookButton
        says={colours ? `by ${name}` : 'by state'}
        isOn={colours !== undefined}
        icon={<Palette size={13} />}
        title="What items are coloured by"
        label="Colour keys"
      >
        <KeptList project={project} kept={keys} on={colours?.key} onChoose={choose} empty={['No colour key is kept yet. Make one in the', '.']}>
          {colours?.error && <Box color="brick.fg">{colours.error.message}</Box>}
          {data?.of === null && <Box color="fg.warning">What it asks for is not in this project.</Box>}
          <Box w="100%">
            {data?.entries.map((entry, at) => {
              const { value, label, count } = entry;
              const address = key && addressOfEntry(scheme, key, at);
              return (
                <Flex key={value} align="center" gap="2" py="0.5">
                  <Box px="2" minW="0" truncate title={label}>
                    <Filled coat={entry}>{label}</Filled>
                  </Box>
                  <Box flex="1" />
                  {address ? (
                    <Box asChild textDecoration="underline" textUnderlineOffset="3px">
                      <Link to={`/p/${project}/${address}`} aria-label={`${counted(count, data.about === 'links' ? 'link' : 'item')} of ${label}`}>
                        {figure(count)}
                      </Link>
                    </Box>
                  ) : (
                    <Box>{figure(count)}</Box>
                  )}
                </Flex>
              );
            })}
            {data?.unkeyed.map(({ value, count }) => (
              <Flex key={value} color="fg.warning" py="0.5">
                <OneLine flex="1" text={`${value}: no entry`} />
                <Box>{figure(count)}</Box>
              </Flex>
            ))}
          </Box>
          <Button size="2xs" variant="outline" onClick={() => choose(undefined)}>
            Colour by state
          </Button>
        </KeptList>
        <KeyFile project={project} kept={keys} on={keys.find(({ id }) => id === colours?.key)} onTaken={choose} />
      </LookButton>
      {data && (
        <>
          <Flex gap="1" minW="0" flexShrink={1} overflow="hidden" py="1" display={{ base: 'none', xl: 'flex' }} aria-hidden="true">
            {data.entries.slice(0, MOST_SHOWN).map((entry) => (
              <Box key={entry.value} px="1.5" fontSize="11.5px" lineHeight="18px" whiteSpace="nowrap">
                <Filled coat={entry}>{entry.label}</Filled>
              </Box>
            ))}
          </Flex>
          <IconButton aria-label="Colour by state" title="Colour by state" size="2xs" variant="plain" flexShrink={0} onClick={() => choose(undefined)}>
            <X size={12} />
          </IconButton>
        </>
      )}
    </Flex>
  );
}
