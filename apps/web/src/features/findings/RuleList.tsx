import { Box, Flex } from '@chakra-ui/react';
import { type FindingRule, type FindingState, findingGroups } from '@coomb/contract';
import { figure } from '@coomb/core';
import { OneLine } from '../../shared/ui/one-line';

const groupLabels: Record<(typeof findingGroups)[number], string> = { coverage: 'What must be covered', evidence: 'Evidence', links: 'Links', texts: 'Texts' };

const countOf = ({ open, waived, taken }: FindingRule, state: FindingState) =>
  state === 'waived' ? waived : state === 'taken' || state === 'mine' ? taken : state === 'all' ? open + waived : open;

/** Rules by group, with what each finds; one of them narrows the list. */
export function RuleList({
  rules,
  state,
  chosen,
  onChoose,
}: {
  rules: readonly FindingRule[];
  state: FindingState;
  chosen: string | undefined;
  onChoose: (rule: string | undefined) => void;
}) {
  const all = rules.reduce((sum, rule) => sum + countOf(rule, state), 0);
  return (
    <Box as="nav" aria-label="Rules" w={{ base: '190px', lg: '264px' }} flexShrink={0} overflowY="auto" borderRightWidth="1px" py="2">
      <Line label="All rules" count={all} isChosen={chosen === undefined} onChoose={() => onChoose(undefined)} />
      {findingGroups.map((group) => (
        <Box key={group} mt="3">
          <Box px="4" pb="0.5" fontSize="12px" fontWeight="600" color="fg.muted">
            {groupLabels[group]}
          </Box>
          {rules
            .filter((rule) => rule.group === group)
            .map((rule) => (
              <Line
                key={rule.id}
                label={rule.label}
                explains={rule.explains}
                count={countOf(rule, state)}
                isQuiet={rule.weight === 'look'}
                isChosen={chosen === rule.id}
                onChoose={() => onChoose(chosen === rule.id ? undefined : rule.id)}
              />
            ))}
        </Box>
      ))}
    </Box>
  );
}

function Line({
  label,
  explains,
  count,
  isChosen,
  isQuiet = false,
  onChoose,
}: {
  label: string;
  explains?: string;
  count: number;
  isChosen: boolean;
  isQuiet?: boolean;
  onChoose: () => void;
}) {
  return (
    <Flex
      asChild
      w="100%"
      align="center"
      gap="2"
      px="4"
      h="27px"
      fontSize="13.5px"
      textAlign="left"
      bg={isChosen ? 'moss.subtle' : undefined}
      color={count === 0 ? 'fg.subtle' : 'fg'}
      _hover={{ bg: isChosen ? 'moss.subtle' : 'bg.subtle' }}
      title={explains}
    >
      <button type="button" aria-pressed={isChosen} onClick={onChoose}>
        <OneLine flex="1" minW="0" text={label} />
        <Box
          minW="2rem"
          textAlign="right"
          fontVariantNumeric="tabular-nums"
          fontWeight={count > 0 && !isQuiet ? '650' : '400'}
          color={count > 0 ? (isQuiet ? 'fg.warning' : 'brick.fg') : 'fg.subtle'}
        >
          {figure(count)}
        </Box>
      </button>
    </Flex>
  );
}
