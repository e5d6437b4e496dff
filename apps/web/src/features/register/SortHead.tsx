import { Box } from '@chakra-ui/react';
import type { RegisterWhat } from '@coomb/core';
import { ArrowDown, ArrowUp } from 'lucide-react';

/** The name of a column, which sorts by it. */
export function SortHead({ id, name, sort, onSort }: { id: string; name: string; sort: RegisterWhat['sort']; onSort: (also: boolean) => void }) {
  const place = sort.findIndex(({ column }) => column === id);
  return (
    <Box asChild flex="1" minW="0" h="100%" display="flex" alignItems="center" gap="1" fontSize="12.5px" fontWeight="600" textAlign="left">
      <button type="button" tabIndex={-1} title={`${name}: click to sort, with Shift also by it`} onClick={(event) => onSort(event.shiftKey)}>
        <Box truncate title={name}>
          {name}
        </Box>
        {place >= 0 && (sort[place]!.descending ? <ArrowDown size={12} aria-label="sorted down" /> : <ArrowUp size={12} aria-label="sorted up" />)}
        {place >= 0 && sort.length > 1 && <Box fontSize="10px">{place + 1}</Box>}
      </button>
    </Box>
  );
}
