import { Box, Button, Flex, Progress } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { ErrorNote } from '../../shared/ui/feedback';

interface Props {
  says: string;
  /** How long it takes at most, in seconds. */
  most: number;
  onCancel: () => void;
}

/** Work that goes on for so long at most: how long it has been at it, and a way to stop it. */
export function Working({ says, most, onCancel }: Props) {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const begin = Date.now();
    const timer = setInterval(() => setSeconds((Date.now() - begin) / 1000), 200);
    return () => clearInterval(timer);
  }, []);
  return (
    <Box fontSize="13px" role="status">
      <Flex align="center" gap="2" mb="1">
        <Box flex="1">
          {says} {seconds >= 1 && `${Math.floor(seconds)} of ${most} s`}
        </Box>
        <Button size="2xs" variant="outline" onClick={onCancel}>
          Cancel
        </Button>
      </Flex>
      <Progress.Root value={Math.min(100, (100 * seconds) / most)} size="xs">
        <Progress.Track>
          <Progress.Range />
        </Progress.Track>
      </Progress.Root>
    </Box>
  );
}

/** What became of work that gave nothing: it failed, or was stopped. */
export function NotDone({ error, onAgain }: { error: unknown; onAgain: () => void }) {
  return (
    <Box fontSize="13px">
      {error ? <ErrorNote error={error} /> : 'It was stopped.'}
      <Button size="2xs" variant="outline" mt="2" onClick={onAgain}>
        Try again
      </Button>
    </Box>
  );
}
