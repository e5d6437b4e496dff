import { Box } from '@chakra-ui/react';

/** A word-level difference: removed words struck, added ones underlined; told by shape as well as by colour. Long stretches that are the same are cut, unless it is read as a whole. */
export function Words({ words, whole = false }: { words: { type: 'same' | 'added' | 'removed'; text: string }[]; whole?: boolean }) {
  return (
    <Box as="span" fontFamily="serif" whiteSpace="pre-wrap">
      {words.map((word, index) => {
        const key = `${index}${word.type}`;
        if (word.type === 'same')
          return <span key={key}>{!whole && word.text.length > 240 ? `${word.text.slice(0, 110)} … ${word.text.slice(-110)}` : word.text}</span>;
        return word.type === 'added' ? (
          <Box as="ins" key={key} bg="moss.muted" textDecoration="underline">
            {word.text}
          </Box>
        ) : (
          <Box as="del" key={key} bg="brick.muted">
            {word.text}
          </Box>
        );
      })}
    </Box>
  );
}
