import { Box, Flex } from '@chakra-ui/react';
import type { ListedLink, linkSorts } from '@coomb/contract';
import { isNoValue } from '@coomb/core';
import { format } from 'date-fns';
import { useLinkCoats } from '../../shared/colour-key/fills';
import { useProject } from '../../shared/live/project-queries';
import { OneLine } from '../../shared/ui/one-line';
import { Filled, Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import type { Names } from './use-names';

type Sort = (typeof linkSorts)[number];
const columns = [
  { sort: 'from', label: 'From', flex: '1 1 34%' },
  { sort: 'kind', label: 'reads', flex: '0 0 8.5rem' },
  { sort: 'to', label: 'To', flex: '1 1 34%' },
  { sort: 'person', label: 'Confirmed by', flex: '0 0 8rem' },
  { sort: 'at', label: 'On', flex: '0 0 5.5rem' },
] as const satisfies readonly { sort: Sort; label: string; flex: string }[];

export function LinkHeads({ sort, descending, onSort }: { sort: Sort; descending: 'yes' | 'no'; onSort: (sort: Sort) => void }) {
  return (
    <Flex pl="42px" pr="26px" gap="2.5" h="26px" flexShrink={0} align="center" borderBottomWidth="1px" fontSize="12px" color="fg.muted">
      {columns.map(({ sort: own, label, flex }) => (
        <Box key={own} asChild flex={flex} minW="0" textAlign="left" fontWeight={own === sort ? '650' : '400'} _hover={{ color: 'fg' }}>
          <button type="button" aria-label={`Sort by ${label.toLowerCase()}`} onClick={() => onSort(own)}>
            {label}
            {own === sort && <span aria-hidden> {descending === 'yes' ? '↑' : '↓'}</span>}
          </button>
        </Box>
      ))}
    </Flex>
  );
}

/** One link: both ends, how it reads, who vouches for it; what is out of the ordinary stands behind the end that it is about. */
export function LinkColumns({ link, names }: { link: ListedLink | undefined; names: Names }) {
  const { linkKinds } = useProject().scheme;
  const coats = useLinkCoats();
  if (!link) return <Box h="10px" flex="1" bg="bg.subtle" maxW="40%" />;
  const coat = coats?.(
    link.from.node,
    link.to.node,
    linkKinds.findIndex(({ id }) => id === link.kind),
  );
  const fields = Object.values(link.fields).filter((value) => !isNoValue(value));
  return (
    <>
      <End item={link.from} use={link.fromUse} flex={columns[0].flex} />
      <Flex flex={columns[1].flex} minW="0" align="center" gap="1" fontSize="13px" color="fg.muted">
        {coat ? <Filled coat={coat}>{names.phrase(link.kind)}</Filled> : <OneLine text={names.phrase(link.kind)} />}
        {link.suspect && (
          <Box flexShrink={0} fontSize="12px" fontWeight="600" color="fg.warning">
            suspect
          </Box>
        )}
        {fields.length > 0 && (
          <Box flexShrink={0} title={fields.join(' · ')} aria-label={fields.join(', ')}>
            ≡
          </Box>
        )}
      </Flex>
      <End item={link.to} use={link.toUse} flex={columns[2].flex} />
      <OneLine flex={columns[3].flex} minW="0" fontSize="12.5px" color="fg.muted" text={link.person} />
      <Box flex={columns[4].flex} fontSize="12.5px" color="fg.muted" fontVariantNumeric="tabular-nums" title={names.origin(link.origin)}>
        {format(new Date(link.at), 'd MMM yy')}
      </Box>
    </>
  );
}

function End({ item, use, flex }: { item: ListedLink['from']; use: string | null; flex: string }) {
  return (
    <Flex flex={flex} minW="0" align="center" gap="2">
      {item.state === 'notApplicable' ? <Box boxSize="14px" flexShrink={0} /> : <StateMark state={item.state} bare />}
      <Reference reference={item.reference} flexShrink={0} />
      <OneLine minW="0" fontFamily="serif" fontSize="14px" textDecoration={item.withdrawn ? 'line-through' : undefined} text={item.title} />
      {use && <OneLine flexShrink={0} maxW="45%" fontSize="12px" color="heather.fg" text={`only as in ${use}`} />}
    </Flex>
  );
}
