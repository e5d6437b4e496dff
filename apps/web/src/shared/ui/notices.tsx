import { Box, Flex, IconButton, Portal } from '@chakra-ui/react';
import { Check, Info, X } from 'lucide-react';
import { useEffect, useSyncExternalStore } from 'react';
import { OneLine } from './one-line';

export interface Notice {
  id: number;
  text: string;
  type: 'success' | 'error' | 'info';
}

/** Milliseconds that a notice stays. What went wrong stays until it is closed or something else is said. */
const stays = { success: 4500, info: 6000, error: 30_000 };
let notices: readonly Notice[] = [];
let last = 0;
/** How many places inside a page say notices: where there is one, none floats over the page. */
let places = 0;
const listeners = new Set<() => void>();

function tell(next: readonly Notice[]): void {
  notices = next;
  for (const listener of listeners) listener();
}

function close(id: number): void {
  tell(notices.filter((one) => one.id !== id));
}

/** A short word that something was done or refused; it goes by itself. */
export function notify(text: string, type: Notice['type'] = 'success'): void {
  const id = ++last;
  // What was done takes the place of what was done before; what went wrong is not pushed aside by what went well.
  tell([...notices.filter((one) => one.type === 'error' && type !== 'error'), { id, text, type }]);
  setTimeout(() => close(id), stays[type]);
}

export function forgetNotices(): void {
  tell([]);
}

export function notifyError(error: unknown): void {
  notify(error instanceof Error ? error.message : String(error), 'error');
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const useNotices = () => useSyncExternalStore(subscribe, () => notices);
const usePlaces = () => useSyncExternalStore(subscribe, () => places);

/** The latest word in one line, for the strip below a view: it covers nothing that is worked on. */
export function NoticeLine() {
  const latest = useNotices().findLast((one) => one.type !== 'error');
  useEffect(() => {
    places++;
    tell(notices);
    return () => {
      places--;
      tell(notices);
    };
  }, []);
  return (
    <Flex role="status" minW="0" flex="1" align="center" gap="1.5" color={latest?.type === 'info' ? 'fg.warning' : 'moss.fg'} fontWeight="500">
      {latest && (
        <>
          <Box flexShrink={0}>{latest.type === 'info' ? <Info size={13} aria-hidden /> : <Check size={13} aria-hidden />}</Box>
          <OneLine text={latest.text} />
        </>
      )}
    </Flex>
  );
}

/** What went wrong stands above the strip, whole, until it is closed; so do other words on pages without a strip. */
export function Notices() {
  const inStrip = usePlaces() > 0;
  const shown = useNotices().filter((one) => one.type === 'error' || !inStrip);
  if (shown.length === 0) return null;
  return (
    <Portal>
      <Flex position="fixed" bottom="38px" left="0" right="0" direction="column" align="center" gap="1" pointerEvents="none" zIndex="toast">
        {shown.slice(-3).map((one) => (
          <Flex
            key={one.id}
            role={one.type === 'error' ? 'alert' : 'status'}
            pointerEvents="auto"
            align="start"
            gap="2"
            maxW="min(720px, 92vw)"
            px="3"
            py="1.5"
            bg={one.type === 'error' ? 'brick.solid' : 'fg'}
            color="bg"
            fontSize="13.5px"
            boxShadow="md"
          >
            <Box flex="1" overflowWrap="anywhere" dir="auto">
              {one.text}
            </Box>
            <IconButton aria-label="Close" title="Close" size="2xs" variant="plain" color="inherit" onClick={() => close(one.id)}>
              <X size={13} />
            </IconButton>
          </Flex>
        ))}
      </Flex>
    </Portal>
  );
}
