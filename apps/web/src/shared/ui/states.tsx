import { Box, Flex, type FlexProps } from '@chakra-ui/react';
import type { CoverageState, VerificationState } from '@coomb/core';
import { Ban, Check, CircleDashed, CircleDot, CircleHelp, Contrast, Feather, Hourglass, type LucideIcon, X } from 'lucide-react';

interface Look {
  label: string;
  icon: LucideIcon;
  explains: string;
}

/** Word, glyph and meaning of each verification state; its colour is the token `state.<id>`. */
export const stateLooks: Record<VerificationState, Look> = {
  verified: { label: 'Verified', icon: Check, explains: 'All of its tests passed, and nothing changed since.' },
  partly: { label: 'Partly verified', icon: Contrast, explains: 'Some tests passed, others were skipped or have not run.' },
  stale: { label: 'Stale', icon: Hourglass, explains: 'Tests passed, but the requirement or a test changed afterwards, or their link is suspect.' },
  planned: { label: 'Planned', icon: CircleDot, explains: 'There are tests, but no result yet.' },
  unplanned: { label: 'No test', icon: CircleDashed, explains: 'No test case verifies it.' },
  failing: { label: 'Failing', icon: X, explains: 'The latest result of at least one test failed or broke.' },
  waived: { label: 'Waived', icon: Feather, explains: 'Verification is waived by name, with a reason.' },
  notApplicable: { label: 'Not applicable', icon: Ban, explains: 'Needs no verification.' },
};

export const coverageLooks: Record<CoverageState, Look & { colour: string }> = {
  met: { label: 'Met', icon: Check, explains: '', colour: 'state.verified' },
  suspect: { label: 'Met only by suspect links', icon: CircleHelp, explains: '', colour: 'state.stale' },
  waived: { label: 'Waived', icon: Feather, explains: '', colour: 'state.waived' },
  notMet: { label: 'Not met', icon: CircleDashed, explains: '', colour: 'state.failing' },
  notApplicable: { label: 'Not applicable', icon: Ban, explains: '', colour: 'state.notApplicable' },
};

/** A state as colour, glyph and word; `bare` leaves the word to the tooltip. */
export function StateMark({ state, bare = false, ...rest }: { state: VerificationState; bare?: boolean } & FlexProps) {
  const { label, icon: Icon, explains } = stateLooks[state];
  return (
    <Flex align="center" gap="1.5" display="inline-flex" title={`${label}: ${explains}`} whiteSpace="nowrap" {...rest}>
      <Box as="span" boxSize="14px" borderRadius="3px" bg={`state.${state}`} color="bg.panel" display="grid" placeItems="center" flexShrink={0}>
        <Icon size={10} strokeWidth={3} aria-hidden />
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
