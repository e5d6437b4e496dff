import { Flex } from '@chakra-ui/react';
import { PersonMark } from './person-mark';

/** Who else works on a row now. */
export function OthersMark({ names }: { names: readonly string[] | undefined }) {
  if (!names || names.length === 0) return null;
  return (
    <Flex
      flexShrink={0}
      gap="0.5"
      role="img"
      aria-label={`${names.join(', ')} ${names.length === 1 ? 'is' : 'are'} here`}
      title={`${names.join(', ')} ${names.length === 1 ? 'is' : 'are'} here`}
    >
      {names.slice(0, 3).map((name) => (
        <PersonMark key={name} name={name} />
      ))}
    </Flex>
  );
}
