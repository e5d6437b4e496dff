import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import type { SchemeEdit } from '@coomb/contract';
import { labelOf, type SchemePart, sortWords } from '@coomb/core';
import { KindForm } from './KindForm';
import { TextLine } from './form-parts';
import { LinkKindForm } from './LinkKindForm';
import type { PartFormProps } from './part-form';
import { RuleForm } from './RuleForm';
import { movePart } from './scheme-draft';
import { VerificationForm } from './VerificationForm';

type Props = Omit<PartFormProps<'kind'>, 'part'> & { part: SchemeEdit; onLeave: () => void };

/** All that the chosen part says, each word of it to be changed. */
export function PartPanel({ part, onLeave, ...rest }: Props) {
  const { parts, change, issues } = rest;
  const own = issues.filter((issue) => issue.sort === part.sort && issue.key === part.key);
  const like = parts
    .filter((one) => one.sort === part.sort && !one.retired && (one.sort !== 'kind' || part.sort !== 'kind' || one.body.layer === part.body.layer))
    .sort((a, b) => a.rank - b.rank);
  const canMove = part.sort !== 'verification' && part.sort !== 'linkKind';
  const word = sortWords[part.sort].one;
  return (
    <Box px="4" py="3">
      <Flex align="baseline" gap="2" mb="2">
        <Heading as="h2" fontSize="16px" flex="1" minW="0" overflowWrap="anywhere">
          {part.sort === 'verification' ? 'Verification' : (labelOf(part as SchemePart) ?? '') || `New ${word}`}
        </Heading>
        <Box color="fg.muted" fontSize="13px">
          {part.sort === 'verification' ? '' : word}
        </Box>
        <Button size="2xs" variant="ghost" onClick={onLeave}>
          Close
        </Button>
      </Flex>
      {own.map((issue) => (
        <Box key={issue.message} color={issue.severity === 'error' ? 'brick.fg' : 'fg.warning'} fontSize="13px" mb="1">
          {issue.message}
        </Box>
      ))}
      {part.sort === 'layer' && <TextLine label="Name" value={part.body.label} onChange={(label) => change([{ ...part, body: { label } }])} />}
      {part.sort === 'kind' && <KindForm {...rest} part={part} />}
      {part.sort === 'linkKind' && <LinkKindForm {...rest} part={part} />}
      {part.sort === 'rule' && <RuleForm {...rest} part={part} />}
      {part.sort === 'verification' && <VerificationForm {...rest} part={part} />}
      {part.sort !== 'verification' && (
        <Flex gap="2" mt="4" pt="2" borderTopWidth="1px" wrap="wrap">
          {canMove &&
            ([-1, 1] as const).map((by) => {
              const moved = movePart(like, part, by);
              const label = part.sort === 'kind' ? (by < 0 ? 'Further left' : 'Further right') : by < 0 ? 'Further up' : 'Further down';
              return (
                <Button key={by} size="2xs" variant="outline" disabled={moved.length === 0} onClick={() => change(moved)}>
                  {label}
                </Button>
              );
            })}
          <Button size="2xs" variant="outline" onClick={() => change([{ ...part, retired: !part.retired }])}>
            {part.retired ? `Take the ${word} back in use` : `Retire the ${word}`}
          </Button>
        </Flex>
      )}
    </Box>
  );
}
