import { Box, type BoxProps } from '@chakra-ui/react';
import { carries } from '../marks/drag-items';
import { inkOn } from '@coomb/core';
import type { ReactNode } from 'react';
import { useFills } from '../colour-key/fills';
import { Link, useLocation, useSearchParams } from 'react-router';

/** Address that opens an item's sheet beside the present view. */
export function useItemAddress(): (reference: string) => string {
  const { pathname } = useLocation();
  const [params] = useSearchParams();
  return (reference) => {
    const next = new URLSearchParams(params);
    next.set('item', reference);
    return `${pathname}?${next}`;
  };
}

/** Text on the fill of its colour key, in the ink that can be read there. */
export function Filled({ fill, children }: { fill: string; children: ReactNode }) {
  return <span style={{ background: fill, color: inkOn(fill), borderRadius: 2, padding: '0 4px', margin: '0 -4px' }}>{children}</span>;
}

/** A reference in mono that opens the item's sheet. */
export function Reference({ reference, ...rest }: { reference: string } & BoxProps) {
  const address = useItemAddress();
  const fill = useFills()?.get(reference);
  return (
    <Box asChild fontFamily="mono" fontSize="12.5px" color="moss.fg" whiteSpace="nowrap" _hover={{ textDecoration: 'underline' }} {...rest}>
      <Link to={address(reference)} {...carries(reference)}>
        {fill ? <Filled fill={fill}>{reference}</Filled> : reference}
      </Link>
    </Box>
  );
}
