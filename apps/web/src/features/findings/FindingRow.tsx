import { Box, Flex } from '@chakra-ui/react';
import type { Finding } from '@coomb/contract';
import { OthersMark } from '../../shared/ui/others-mark';
import { OneLine } from '../../shared/ui/one-line';
import { PersonMark } from '../../shared/ui/person-mark';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';

/** One finding in a line: where, what, who has it in hand, why it is accepted. */
export function FindingRow({ finding, label, others }: { finding: Finding | undefined; label: string | undefined; others?: readonly string[] | undefined }) {
  if (!finding) return <Box h="10px" flex="1" bg="bg.subtle" maxW="40%" />;
  const { item, says, waiver, errand } = finding;
  return (
    <>
      {item.state === 'notApplicable' ? <Box boxSize="14px" flexShrink={0} /> : <StateMark state={item.state} bare />}
      <Reference reference={item.reference} flexShrink={0} minW="4.6rem" />
      <OneLine flex="1 1 30%" minW="0" fontFamily="serif" fontSize="14.5px" text={item.title} />
      <OneLine flex="1 1 45%" minW="0" fontSize="13px" color={waiver ? 'fg.muted' : 'fg'} text={says} />
      {label && !says.includes(label) && <OneLine flexShrink={0} w="11rem" fontSize="12px" color="fg.muted" text={label} />}
      {waiver && <OneLine flexShrink={0} maxW="14rem" fontSize="12px" color="heather.fg" text={`waived by ${waiver.person}: ${waiver.reason}`} />}
      <OthersMark names={others} />
      {errand && (
        <Flex align="center" gap="1" title={`${errand.owner} has it in hand${errand.note && `: ${errand.note}`}`} flexShrink={0}>
          <PersonMark name={errand.owner} />
          <Box srOnly>{errand.owner} has it in hand</Box>
        </Flex>
      )}
    </>
  );
}
