import { Box, type BoxProps } from '@chakra-ui/react';
import { carries } from '../marks/drag-items';
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

/** A reference in mono that opens the item's sheet. */
export function Reference({ reference, ...rest }: { reference: string } & BoxProps) {
  const address = useItemAddress();
  return (
    <Box asChild fontFamily="mono" fontSize="12.5px" color="moss.fg" whiteSpace="nowrap" _hover={{ textDecoration: 'underline' }} {...rest}>
      <Link to={address(reference)} {...carries(reference)}>
        {reference}
      </Link>
    </Box>
  );
}
