import { Box, Flex, type FlexProps } from '@chakra-ui/react';
import type { CoverageState, VerificationState } from '@coomb/core';
import { stateGlyphs } from './state-glyphs';

interface Look {
  label: string;
  explains: string;
}

/** Word and meaning of each verification state; its colour is the token `state.<id>`, its glyph in `stateGlyphs`. */
export const stateLooks: Record<VerificationState, Look> = {
  verified: { label: 'Verified', explains: 'All of its tests passed, and nothing changed since.' },
  partly: { label: 'Partly verified', explains: 'Some tests passed, others were skipped or have not run.' },
  stale: { label: 'Stale', explains: 'Tests passed, but the requirement or a test changed afterwards, or their link is suspect.' },
  planned: { label: 'Planned', explains: 'There are tests, but no result yet.' },
  unplanned: { label: 'No test', explains: 'No test case verifies it.' },
  failing: { label: 'Failing', explains: 'The latest result of at least one test failed or broke.' },
  waived: { label: 'Waived', explains: 'Verification is waived by name, with a reason.' },
  notApplicable: { label: 'Not applicable', explains: 'Needs no verification.' },
};

export const coverageLooks: Record<CoverageState, Look & { colour: string; glyph: string }> = {
  met: { label: 'Met', explains: '', colour: 'state.verified', glyph: stateGlyphs.verified },
  suspect: { label: 'Met only by suspect links', explains: '', colour: 'state.stale', glyph: stateGlyphs.stale },
  waived: { label: 'Waived', explains: '', colour: 'state.waived', glyph: stateGlyphs.waived },
  notMet: { label: 'Not met', explains: '', colour: 'state.failing', glyph: stateGlyphs.failing },
  notApplicable: { label: 'Not applicable', explains: '', colour: 'state.notApplicable', glyph: stateGlyphs.notApplicable },
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
  const { label, explains } = stateLooks[state];
  return (
    <Flex align="center" gap="1.5" display="inline-flex" title={`${label}: ${explains}`} whiteSpace="nowrap" {...rest}>
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
