import { Box, Button, Flex, IconButton, Popover, Portal } from '@chakra-ui/react';
import { figure, inkOn } from '@coomb/core';
import { Palette, Trash2, X } from 'lucide-react';
import { Link } from 'react-router';
import { colourBy } from '../shared/colour-key/key-on';
import { useColours } from '../shared/colour-key/fills';
import { useSavedViews, useWithdrawView } from '../shared/saved-views/queries';
import { OneLine } from '../shared/ui/one-line';

const MOST_SHOWN = 6;

/** The colour key that is on, beside what it colours: its entries with how many items have each. */
export function KeyChoice({ project }: { project: string }) {
  const colours = useColours(project);
  const withdraw = useWithdrawView(project);
  const keys = (useSavedViews(project).data ?? []).filter(({ sort }) => sort === 'colourKey');
  const { data } = colours ?? {};
  const name = colours && (keys.find(({ id }) => id === colours.key)?.name ?? data?.name ?? 'a key');
  return (
    <Flex align="center" minW="0" gap="1">
      <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
        <Popover.Trigger asChild>
          <Button
            size="2xs"
            variant="ghost"
            minW="0"
            fontWeight={colours ? '600' : '400'}
            color={colours ? 'fg' : 'fg.muted'}
            aria-label={colours ? `by ${name}` : 'by state'}
            px="1.5"
            title="What items are coloured by"
          >
            <Palette size={13} />
            <Box truncate title={colours ? `by ${name}` : 'by state'} display={{ base: colours ? 'block' : 'none', lg: 'block' }} maxW="160px">
              {colours ? `by ${name}` : 'by state'}
            </Box>
          </Button>
        </Popover.Trigger>
        <Portal>
          <Popover.Positioner>
            <Popover.Content w="330px" borderWidth="1px" aria-label="Colour keys">
              <Popover.Body p="2" fontSize="13.5px">
                {keys.length === 0 && (
                  <Box color="fg.muted" px="1">
                    No colour key is kept yet. Make one in the{' '}
                    <Box asChild textDecoration="underline">
                      <Link to={`/p/${project}/shape/register`}>register</Link>
                    </Box>
                    .
                  </Box>
                )}
                {keys.map(({ id, name: called }) => (
                  <Flex key={id} align="center" borderRadius="l2" _hover={{ bg: 'bg.subtle' }} {...(id === colours?.key && { bg: 'bg.muted' })}>
                    <Box asChild flex="1" minW="0" textAlign="left" px="2" py="1" fontWeight={id === colours?.key ? '600' : '400'}>
                      <button type="button" onClick={() => colourBy(project, id)}>
                        <OneLine text={called} />
                      </button>
                    </Box>
                    <IconButton
                      aria-label={`Keep ${called} no more`}
                      title="Keep it no more"
                      size="2xs"
                      variant="ghost"
                      onClick={() => {
                        if (id === colours?.key) colourBy(project, undefined);
                        withdraw.mutate(id);
                      }}
                    >
                      <Trash2 size={12} />
                    </IconButton>
                  </Flex>
                ))}
                {colours && (
                  <Box mt="2" pt="2" px="1" borderTopWidth="1px">
                    {colours.error && <Box color="brick.fg">{colours.error.message}</Box>}
                    {data?.of === null && <Box color="fg.warning">What it asks for is not in this project.</Box>}
                    {data?.entries.map(({ value, label, fill, count }) => (
                      <Entry key={value} label={label} fill={fill} count={count} />
                    ))}
                    {data?.unkeyed.map(({ value, count }) => (
                      <Flex key={value} color="fg.warning" py="0.5">
                        <OneLine flex="1" text={`${value}: no entry`} />
                        <Box>{figure(count)}</Box>
                      </Flex>
                    ))}
                    <Button size="2xs" variant="outline" mt="2" onClick={() => colourBy(project, undefined)}>
                      Colour by state
                    </Button>
                  </Box>
                )}
              </Popover.Body>
            </Popover.Content>
          </Popover.Positioner>
        </Portal>
      </Popover.Root>
      {data && (
        <>
          <Flex gap="1" display={{ base: 'none', xl: 'flex' }} aria-hidden="true">
            {data.entries.slice(0, MOST_SHOWN).map(({ value, label, fill }) => (
              <Box
                key={value}
                px="1.5"
                borderRadius="2px"
                fontSize="11.5px"
                lineHeight="18px"
                whiteSpace="nowrap"
                style={{ background: fill, color: inkOn(fill) }}
              >
                {label}
              </Box>
            ))}
          </Flex>
          <IconButton aria-label="Colour by state" title="Colour by state" size="2xs" variant="plain" onClick={() => colourBy(project, undefined)}>
            <X size={12} />
          </IconButton>
        </>
      )}
    </Flex>
  );
}

function Entry({ label, fill, count }: { label: string; fill: string; count: number }) {
  return (
    <Flex align="center" gap="2" py="0.5">
      <Box px="2" borderRadius="2px" minW="0" truncate title={label} style={{ background: fill, color: inkOn(fill) }}>
        {label}
      </Box>
      <Box flex="1" />
      <Box>{figure(count)}</Box>
    </Flex>
  );
}
