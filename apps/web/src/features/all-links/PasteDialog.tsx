import { Box, Button, Checkbox, Dialog, Flex, Portal, Textarea } from '@chakra-ui/react';
import type { pastedOutcomes } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { useDeferredValue, useState } from 'react';
import type { Project } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { notify } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { usePasteLinks, useTriedPaste } from './queries';

type Outcome = (typeof pastedOutcomes)[number];
const outcomes: Record<Outcome, { label: string; colour: string }> = {
  makes: { label: 'will be made', colour: 'moss.fg' },
  waits: { label: 'will wait', colour: 'heather.fg' },
  stands: { label: 'stands already', colour: 'fg.muted' },
  asks: { label: 'which kind?', colour: 'fg.warning' },
  unknown: { label: 'not found', colour: 'brick.fg' },
  refused: { label: 'refused', colour: 'brick.fg' },
};
const MOST_SHOWN = 300;

/** Links from a spreadsheet: cells are pasted, and what becomes of every row stands below before anything is stored. */
export function PasteDialog({ project, onClose }: { project: Project; onClose: () => void }) {
  const [text, setText] = useState('');
  const [way, setWay] = useState('');
  const [wait, setWait] = useState(false);
  const [only, setOnly] = useState<Outcome>();
  const asked = useDeferredValue(text);
  const [linkKind, reversed] = way.split(' ');
  const body = asked.trim() === '' ? undefined : { text: asked, wait, ...(way && { linkKind: linkKind!, reversed: reversed === 'to' }) };
  const tried = useTriedPaste(project.id, body);
  const paste = usePasteLinks(project.id);
  const told = body ? tried.data : undefined;
  const ways = project.scheme.linkKinds
    .filter(({ retired }) => !retired)
    .flatMap(({ id, phrase, reverse }) => [
      { value: `${id} from`, label: `left “${phrase}” right` },
      { value: `${id} to`, label: `left “${reverse}” right` },
    ]);
  const able = (told?.counts.makes ?? 0) + (told?.counts.waits ?? 0);
  const rows = (told?.rows ?? []).filter(({ outcome }) => !only || outcome === only);
  return (
    <Dialog.Root open onOpenChange={onClose} size="xl" placement="center">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header pb="1">
              <Dialog.Title fontSize="16px">Paste links from a spreadsheet</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body pb="3" fontSize="14px">
              <Textarea
                size="sm"
                rows={5}
                autoFocus
                fontFamily="mono"
                fontSize="12.5px"
                aria-label="Cells"
                placeholder={'TC-014\tSYS-023\nTC-015\tSYS-023, SYS-024\n\nor a matrix with marks: references on top and at the left'}
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
              <Flex gap="3" mt="2" align="center" wrap="wrap" fontSize="13px">
                <Choice
                  label="How they are linked, where the cells do not say so"
                  value={way}
                  options={[{ value: '', label: 'as the two allow, where that is one way' }, ...ways]}
                  onChange={setWay}
                />
                <Checkbox.Root size="sm" checked={wait} onCheckedChange={({ checked }) => setWait(checked === true)}>
                  <Checkbox.HiddenInput />
                  <Checkbox.Control />
                  <Checkbox.Label fontWeight="400" fontSize="13px">
                    Let them wait for items that are not there yet
                  </Checkbox.Label>
                </Checkbox.Root>
              </Flex>
              {tried.error && body && (
                <Box mt="2" color="brick.fg" role="alert">
                  {tried.error.message}
                </Box>
              )}
              {told && (
                <>
                  <Flex gap="2" mt="3" mb="1" wrap="wrap" fontSize="13px" aria-label="Outcomes" role="group">
                    {(Object.keys(outcomes) as Outcome[]).map((outcome) => {
                      const count = told.counts[outcome] ?? 0;
                      if (count === 0) return null;
                      return (
                        <Button
                          key={outcome}
                          size="2xs"
                          variant={only === outcome ? 'solid' : 'outline'}
                          aria-pressed={only === outcome}
                          onClick={() => setOnly(only === outcome ? undefined : outcome)}
                        >
                          {figure(count)} {outcomes[outcome].label}
                        </Button>
                      );
                    })}
                    {told.passed.length > 0 && <Box color="fg.muted">{counted(told.passed.length, 'line')} without a link</Box>}
                  </Flex>
                  <Box maxH="270px" overflowY="auto" borderWidth="1px" role="table" aria-label="Rows" fontSize="13px">
                    {rows.slice(0, MOST_SHOWN).map(({ line, left, right, outcome, says }, index) => (
                      <Flex key={`${line} ${left} ${right} ${index}`} role="row" gap="3" px="2" h="25px" align="center" borderBottomWidth="1px">
                        <Box role="cell" w="3rem" color="fg.muted" textAlign="right" flexShrink={0}>
                          {line}
                        </Box>
                        <OneLine role="cell" w="8rem" flexShrink={0} fontFamily="mono" fontSize="12px" text={left} />
                        <OneLine role="cell" w="8rem" flexShrink={0} fontFamily="mono" fontSize="12px" text={right} />
                        <Box role="cell" w="7rem" flexShrink={0} fontWeight="600" color={outcomes[outcome].colour}>
                          {outcomes[outcome].label}
                        </Box>
                        <OneLine role="cell" flex="1" minW="0" color="fg.muted" text={says} />
                      </Flex>
                    ))}
                    {!only &&
                      told.passed.map(({ line, says }) => (
                        <Flex key={`passed ${line} ${says}`} role="row" gap="3" px="2" h="25px" align="center" borderBottomWidth="1px" color="fg.muted">
                          <Box role="cell" w="3rem" textAlign="right" flexShrink={0}>
                            {line}
                          </Box>
                          <OneLine role="cell" flex="1" minW="0" text={`no link: ${says}`} />
                        </Flex>
                      ))}
                    {rows.length > MOST_SHOWN && (
                      <Box px="2" py="1" color="fg.muted">
                        and {figure(rows.length - MOST_SHOWN)} more
                      </Box>
                    )}
                  </Box>
                </>
              )}
            </Dialog.Body>
            <Dialog.Footer pt="0" pb="4" gap="2">
              <Button size="xs" variant="ghost" onClick={onClose}>
                Leave
              </Button>
              <Button
                size="xs"
                disabled={able === 0 || tried.isFetching || asked !== text}
                loading={paste.isPending}
                onClick={() =>
                  body &&
                  paste.mutate(body, {
                    onSuccess: ({ counts }) => {
                      const waits = counts.waits ? `; ${counted(counts.waits, 'end')} ${counts.waits === 1 ? 'waits' : 'wait'}` : '';
                      notify(`${counted(counts.makes ?? 0, 'link')} made${waits}. Undo takes it back.`);
                      onClose();
                    },
                  })
                }
              >
                {able > 0 ? `Make ${counted(able, 'link')}` : 'Make links'}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
