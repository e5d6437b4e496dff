import { Box, Flex } from '@chakra-ui/react';
import { figure, type Scheme, sayFilter } from '@coomb/core';
import type { Readiness } from '@coomb/contract';
import { Changed } from './Strata';

/** What must hold: each rule as its sentence, with what is open by it now. */
export function RuleSentences({
  scheme,
  readiness,
  chosen,
  onChoose,
  changed,
}: {
  scheme: Scheme;
  readiness: Readiness | undefined;
  chosen: string;
  onChoose: (part: string) => void;
  changed: ReadonlySet<string>;
}) {
  const link = scheme.linkKinds.find((kind) => kind.id === scheme.verification.verifies);
  return (
    <Box>
      {scheme.rules.map((rule) => {
        const figures = readiness?.rules.find((one) => one.rule === rule.id);
        const open = figures ? figures.counts.notMet : undefined;
        return (
          <Sentence
            key={rule.id}
            name={rule.label}
            says={rule.sentence}
            open={open === undefined ? '' : open === 0 ? '✓' : figure(open)}
            chosen={chosen === `rule ${rule.id}`}
            changed={changed.has(`rule ${rule.id}`)}
            onChoose={() => onChoose(`rule ${rule.id}`)}
          />
        );
      })}
      {scheme.rules.length === 0 && (
        <Box color="fg.muted" py="2">
          Nothing must hold yet. Add a rule: it says of which items what must be linked.
        </Box>
      )}
      <Sentence
        name="Verification"
        says={
          link && scheme.verification.of.kinds.length > 0
            ? `Every ${sayFilter(scheme, scheme.verification.of)} ${link.reverse} tests whose latest results passed and are fresh.`
            : 'Nothing is asked to be verified.'
        }
        open=""
        chosen={chosen === 'verification verification'}
        changed={changed.has('verification verification')}
        onChoose={() => onChoose('verification verification')}
      />
    </Box>
  );
}

function Sentence({
  name,
  says,
  open,
  chosen,
  changed,
  onChoose,
}: {
  name: string;
  says: string;
  open: string;
  chosen: boolean;
  changed: boolean;
  onChoose: () => void;
}) {
  return (
    <Flex
      asChild
      w="100%"
      textAlign="left"
      gap="3"
      py="1.5"
      px="3"
      borderTopWidth="1px"
      align="baseline"
      bg={chosen ? 'moss.subtle' : 'transparent'}
      _hover={{ bg: chosen ? 'moss.subtle' : 'bg.subtle' }}
    >
      <button type="button" aria-pressed={chosen} onClick={onChoose}>
        <Box w="11rem" flexShrink={0} fontSize="13px" fontWeight="600">
          {name}
          {changed && <Changed />}
        </Box>
        <Box flex="1" fontFamily="serif" fontSize="15px" lineHeight="1.4">
          {says}
        </Box>
        <Box w="3.5rem" textAlign="right" fontFamily="serif" fontSize="16px" fontWeight="600" color={open === '✓' ? 'moss.fg' : 'brick.fg'}>
          {open}
        </Box>
      </button>
    </Flex>
  );
}
