import { Box, Button, Flex } from '@chakra-ui/react';
import type { OutlineReply, Readiness } from '@coomb/contract';
import { type VerificationState, verificationStates, counted, figure } from '@coomb/core';
import { Link } from 'react-router';
import { StateMark } from '../../shared/ui/states';

interface Props {
  base: string;
  readiness: Readiness;
  outline: OutlineReply;
  /** Rows that are counted alone: a brushed part, or what a lens shows. */
  brushed: ReadonlySet<number> | undefined;
  isBrushed: boolean;
  /** Whether rows of the outline count as requirements. */
  isRequirement: (row: number) => boolean;
  onRelease: () => void;
}

/** Figures beside the section. With a brushed part they count that part alone. */
export function SectionFigures({ base, readiness, outline, brushed, isBrushed, isRequirement, onRelease }: Props) {
  const rows = brushed ? [...brushed].filter((row) => !outline.heading[row]) : [];
  const counts = new Map<VerificationState, number>();
  if (brushed)
    for (const row of brushed)
      if (isRequirement(row)) counts.set(verificationStates[outline.state[row]!]!, (counts.get(verificationStates[outline.state[row]!]!) ?? 0) + 1);
  const states = readiness.states
    .filter((one) => one.state !== 'notApplicable')
    .map((one) => ({ ...one, shown: brushed ? (counts.get(one.state) ?? 0) : one.count }));
  const total = states.reduce((sum, one) => sum + one.shown, 0);
  const gaps = brushed ? [...brushed].filter((row) => outline.gaps[row]! > 0).length : 0;
  return (
    <Box w="270px" flexShrink={0} borderLeftWidth="1px" bg="bg.panel" overflow="auto" px="4" py="3">
      {brushed && (
        <Flex align="center" bg="moss.subtle" mx="-4" mt="-3" mb="3" px="4" py="1.5" gap="2">
          <Box flex="1">
            {counted(rows.length, 'item')} {isBrushed ? 'brushed' : 'of the lens'}
          </Box>
          {isBrushed && (
            <Button size="2xs" variant="outline" onClick={onRelease}>
              Let go
            </Button>
          )}
        </Flex>
      )}
      <Box fontWeight="600">Verification</Box>
      <Box color="fg.muted" fontSize="12.5px" mb="2">
        {counted(total, 'need or requirement', 'needs and requirements')}
      </Box>
      <StateBar states={states} total={total} />
      {states
        .filter((one) => one.shown > 0 || !brushed)
        .map((one) => (
          <Flex asChild={!brushed} key={one.id} py="1" borderTopWidth="1px" align="center" _hover={{ bg: 'bg.subtle' }}>
            {brushed ? (
              <>
                <StateMark state={one.state} flex="1" />
                <Box fontVariantNumeric="tabular-nums">{figure(one.shown)}</Box>
              </>
            ) : (
              <Link to={`${base}/check/figure/${one.id}`}>
                <StateMark state={one.state} flex="1" />
                <Box fontVariantNumeric="tabular-nums">{figure(one.shown)}</Box>
              </Link>
            )}
          </Flex>
        ))}
      <Box fontWeight="600" mt="5">
        Coverage
      </Box>
      {brushed ? (
        <Box color="fg.muted" fontSize="13px">
          {gaps} of {isBrushed ? 'the brushed items' : 'what the lens shows'} {gaps === 1 ? 'misses' : 'miss'} a coverage rule.
        </Box>
      ) : (
        readiness.rules.map((rule) => (
          <Flex key={rule.rule} py="1.5" borderTopWidth="1px" gap="2" title={rule.sentence} align="baseline">
            <Box flex="1">{rule.label}</Box>
            <Box color="fg.muted" fontSize="12.5px" fontVariantNumeric="tabular-nums">
              {figure(rule.counts.met + rule.counts.waived)} of {figure(rule.applicable)}
            </Box>
            <Box asChild minW="3.5em" textAlign="right" color={rule.counts.notMet ? 'brick.fg' : 'fg.muted'} _hover={{ textDecoration: 'underline' }}>
              <Link to={`${base}/check/figure/rule:${rule.rule}:notMet`}>{figure(rule.counts.notMet)} open</Link>
            </Box>
          </Flex>
        ))
      )}
      <Box color="fg.muted" fontSize="12px" mt="5" lineHeight="1.5">
        A cell is an item. Dashed holes miss a coverage rule; an ochre corner marks suspect links. Hover to trace, drag to brush, click to open.
      </Box>
    </Box>
  );
}

function StateBar({ states, total }: { states: { state: VerificationState; shown: number }[]; total: number }) {
  if (total === 0) return null;
  return (
    <Flex h="10px" mb="2" gap="1px" aria-hidden="true">
      {states
        .filter((one) => one.shown > 0)
        .map((one) => (
          <Box key={one.state} bg={`state.${one.state}`} style={{ width: `${(one.shown / total) * 100}%` }} />
        ))}
    </Flex>
  );
}
