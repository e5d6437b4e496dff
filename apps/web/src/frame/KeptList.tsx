import { Box, Flex, IconButton } from '@chakra-ui/react';
import type { SavedView } from '@coomb/contract';
import { Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useWithdrawView } from '../shared/saved-views/queries';
import { OneLine } from '../shared/ui/one-line';

interface Props {
  project: string;
  kept: readonly SavedView[];
  /** The one that is on. */
  on: string | undefined;
  onChoose: (id: string | undefined) => void;
  /** Said before and behind the way to the register, where nothing is kept yet. */
  empty: readonly [before: string, behind: string];
  children?: ReactNode;
}

/** Lenses or colour keys that are kept: one is put on, or kept no more. What the one that is on says stands below. */
export function KeptList({ project, kept, on, onChoose, empty, children }: Props) {
  const withdraw = useWithdrawView(project);
  return (
    <>
      {kept.length === 0 && (
        <Box color="fg.muted" px="1" pb="1">
          {empty[0]}{' '}
          <Box asChild textDecoration="underline">
            <Link to={`/p/${project}/shape/register`}>register</Link>
          </Box>
          {empty[1]}
        </Box>
      )}
      {kept.map(({ id, name, person }) => (
        <Flex key={id} align="center" borderRadius="l2" _hover={{ bg: 'bg.subtle' }} {...(id === on && { bg: 'bg.muted' })}>
          <Box asChild flex="1" minW="0" textAlign="left" px="2" py="1" fontWeight={id === on ? '600' : '400'}>
            <button type="button" aria-pressed={id === on} onClick={() => onChoose(id)} title={`Kept by ${person}`}>
              <OneLine text={name} />
            </button>
          </Box>
          <IconButton
            aria-label={`Keep ${name} no more`}
            title="Keep it no more"
            size="2xs"
            variant="ghost"
            onClick={() => {
              if (id === on) onChoose(undefined);
              withdraw.mutate(id);
            }}
          >
            <Trash2 size={12} />
          </IconButton>
        </Flex>
      ))}
      {on !== undefined && (
        <Flex direction="column" gap="2" mt="2" pt="2" px="1" borderTopWidth="1px" align="flex-start">
          {children}
        </Flex>
      )}
    </>
  );
}
