import { Box, Flex, type FlexProps } from '@chakra-ui/react';
import { type CoverageState, stateWords, type VerificationState } from '@coomb/core';
import { stateGlyphs } from './state-glyphs';

/** Word, colour and glyph of each state of coverage. Verification states have their words in `stateWords`, the token `state.<id>`, `stateGlyphs`. */
export const coverageLooks: Record<CoverageState, { label: string; colour: string; glyph: string }> = {
  met: { label: 'Met', colour: 'state.verified', glyph: stateGlyphs.verified },
  suspect: { label: 'Met only by suspect links', colour: 'state.stale', glyph: stateGlyphs.stale },
  waived: { label: 'Waived', colour: 'state.waived', glyph: stateGlyphs.waived },
  notMet: { label: 'Not met', colour: 'state.failing', glyph: stateGlyphs.failing },
  notApplicable: { label: 'Not applicable', colour: 'state.notApplicable', glyph: stateGlyphs.notApplicable },
};

/** Strokes in a square of 24, in the colour of the text around them. */
export function Glyph({ path, size = 12 }: { path: string; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth="3.4"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
    >
      <path d={path} />
    </svg>
  );
}

/** A state as colour, glyph and word; `bare` leaves the word to the tooltip. */
export function StateMark({ state, bare = false, ...rest }: { state: VerificationState; bare?: boolean } & FlexProps) {
  const { label, ofOne } = stateWords[state];
  return (
    <Flex align="center" gap="1.5" display="inline-flex" title={`${label}: ${ofOne}`} whiteSpace="nowrap" {...rest}>
      <Box as="span" boxSize="14px" borderRadius="3px" bg={`state.${state}`} color="bg.panel" display="grid" placeItems="center" flexShrink={0}>
        <Glyph path={stateGlyphs[state]} />
      </Box>
      {bare ? (
        <Box as="span" srOnly>
          {label}
        </Box>
      ) : (
        <Box as="span">{label}</Box>
      )}
    </Flex>
  );
}
