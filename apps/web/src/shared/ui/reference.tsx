import { Box, type BoxProps } from '@chakra-ui/react';
import { carries } from '../marks/drag-items';
import { type Coat, type GlyphName, glyphs, inkOn } from '@coomb/core';
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

/** A sign of a colour key, as large as the letters beside it. */
export function KeyGlyph({ name }: { name: GlyphName }) {
  return (
    <svg viewBox="0 0 10 10" width="9" height="9" aria-hidden="true" style={{ display: 'inline', marginRight: 3, verticalAlign: '-1px' }}>
      <path d={glyphs[name]} fill="currentColor" />
    </svg>
  );
}

/** Text as a colour key has it, in the ink that can be read on its fill. */
export function Filled({ coat: { fill, line, width, dash, glyph }, children }: { coat: Coat; children: ReactNode }) {
  const outline = line || width || dash ? { outline: `${Math.min(width ?? 1.5, 3)}px ${dash ?? 'solid'} ${line ?? 'currentColor'}` } : undefined;
  return (
    <span style={{ ...(fill && { background: fill, color: inkOn(fill) }), borderRadius: 2, padding: '0 4px', margin: '0 -4px', ...outline }}>
      {glyph && <KeyGlyph name={glyph} />}
      {children}
    </span>
  );
}

/** A reference in mono that opens the item's sheet. */
export function Reference({ reference, ...rest }: { reference: string } & BoxProps) {
  const address = useItemAddress();
  const fill = useFills()?.get(reference);
  return (
    <Box asChild fontFamily="mono" fontSize="12.5px" color="moss.fg" whiteSpace="nowrap" _hover={{ textDecoration: 'underline' }} {...rest}>
      <Link to={address(reference)} {...carries(reference)}>
        {fill ? <Filled coat={fill}>{reference}</Filled> : reference}
      </Link>
    </Box>
  );
}
