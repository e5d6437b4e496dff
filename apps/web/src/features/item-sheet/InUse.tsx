import { Box, Button, Flex } from '@chakra-ui/react';
import type { Usage } from '@coomb/contract';
import { counted, type Field, type FieldValue, type Kind } from '@coomb/core';
import { useMemo, useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { useKeys } from '../../shared/ui/use-keys';
import { FieldEditor, FieldText } from './FieldEditor';
import { type Sheet, useSetInUsage, useUsages } from './queries';
import { idsOf } from './use-in-use';

const EVERYWHERE = '';
const keyOf = (path: readonly string[]) => path.join(',');

interface Props {
  sheet: Sheet;
  use: readonly string[] | undefined;
  onChoose: (use: readonly string[] | undefined) => void;
}

/** An item that is used in several places: shown everywhere together, or as it is in one of them. U goes on to the next. */
export function InUse({ sheet, use, onChoose }: Props) {
  const project = useProject();
  const reply = useUsages(project.id, sheet.id, sheet.uses > 0).data;
  const usages = reply?.usages ?? [];
  const keys = useMemo(() => {
    const order: (readonly string[] | undefined)[] = [undefined, ...usages.map(idsOf)];
    const at = order.findIndex((one) => keyOf(one ?? []) === keyOf(use ?? []));
    return { u: () => onChoose(order[(at + 1) % order.length]) };
  }, [usages, use, onChoose]);
  useKeys(keys, usages.length > 0);
  if (usages.length === 0) return null;
  const chosen = usages.find((one) => keyOf(idsOf(one)) === keyOf(use ?? []));
  const options = usages.map((one) => ({
    value: keyOf(idsOf(one)),
    label: `as ${one.says}${one.links > 0 ? `, ${counted(one.links, 'link')} of its own` : ''}${one.gone ? ' (no more)' : ''}`,
  }));
  return (
    <Box my="2" pl="3" borderLeftWidth="3px" borderColor={chosen ? 'heather.fg' : 'border'}>
      <Flex gap="2" align="center" fontSize="13px">
        <Box color="fg.muted" flexShrink={0}>
          {chosen ? 'Shown' : 'Shown wherever it is used'}
        </Box>
        <Box flex="1" minW="0" title="The next use  U">
          <Choice
            label="The use that it is shown in"
            value={chosen ? keyOf(idsOf(chosen)) : EVERYWHERE}
            options={[{ value: EVERYWHERE, label: `in every use (${usages.length}${reply?.cut ? ' and more' : ''})` }, ...options]}
            onChange={(value) => onChoose(value === EVERYWHERE ? undefined : value.split(','))}
            width="100%"
          />
        </Box>
      </Flex>
      {chosen && <OwnValues key={keyOf(use ?? [])} sheet={sheet} usage={chosen} />}
    </Box>
  );
}

/** What fields say in one use: those that differ from what holds everywhere, and the form that sets them. */
function OwnValues({ sheet, usage }: { sheet: Sheet; usage: Usage }) {
  const project = useProject();
  const kind = project.scheme.kinds.find(({ id }) => id === sheet.kind);
  const [writing, setWriting] = useState(false);
  if (!kind || kind.fields.length === 0) return null;
  const own = kind.fields.filter(({ id }) => id in usage.fields);
  return (
    <Box mt="1" fontSize="13.5px">
      {own.map((field) => (
        <Flex key={field.id} gap="3" py="0.5">
          <Box w="118px" flexShrink={0} color="fg.muted">
            {field.label}
          </Box>
          <Box flex="1">
            <Box as="span" color="heather.fg" fontWeight="600">
              <FieldText field={field} value={usage.fields[field.id]} />
            </Box>{' '}
            <Box as="span" color="fg.muted">
              here; {sheet.fields[field.id] === undefined ? 'nothing' : <FieldText field={field} value={sheet.fields[field.id]} />} elsewhere
            </Box>
          </Box>
        </Flex>
      ))}
      {writing ? (
        <OwnForm sheet={sheet} kind={kind} usage={usage} onDone={() => setWriting(false)} />
      ) : (
        !sheet.withdrawn &&
        !usage.gone && (
          <Button size="2xs" variant="ghost" px="0" onClick={() => setWriting(true)}>
            {own.length > 0 ? 'Change what is so here only' : 'Say what is so here only'}
          </Button>
        )
      )}
    </Box>
  );
}

function OwnForm({ sheet, kind, usage, onDone }: { sheet: Sheet; kind: Kind; usage: Usage; onDone: () => void }) {
  const project = useProject();
  const set = useSetInUsage(project.id);
  const [draft, setDraft] = useState<Record<string, FieldValue>>({});
  const saidOf = ({ id }: Field) => (id in draft ? draft[id]! : (usage.fields[id] ?? null));
  return (
    <Box
      as="form"
      aria-label={`Values as ${usage.says}`}
      py="1"
      onSubmit={(event) => {
        event.preventDefault();
        if (Object.keys(draft).length === 0) return onDone();
        set.mutate({ path: idsOf(usage), fields: draft, revision: usage.revision }, { onSuccess: onDone });
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        onDone();
      }}
    >
      {kind.fields.map((field) => (
        <Flex key={field.id} gap="3" py="1" align="flex-start">
          <Box w="118px" flexShrink={0} color="fg.muted" pt="1">
            {field.label}
          </Box>
          <Box flex="1" minW="0">
            <FieldEditor field={field} value={saidOf(field)} onChange={(value) => setDraft({ ...draft, [field.id]: value })} />
            {saidOf(field) === null && sheet.fields[field.id] !== undefined && (
              <Box fontSize="12px" color="fg.muted">
                as everywhere: <FieldText field={field} value={sheet.fields[field.id]} />
              </Box>
            )}
          </Box>
          <Button
            size="2xs"
            variant="ghost"
            visibility={saidOf(field) === null ? 'hidden' : 'visible'}
            onClick={() => setDraft({ ...draft, [field.id]: null })}
            title="Back to what holds everywhere"
          >
            As everywhere
          </Button>
        </Flex>
      ))}
      <Flex gap="1" py="1">
        <Button type="submit" size="2xs" loading={set.isPending}>
          Keep
        </Button>
        <Button size="2xs" variant="ghost" onClick={onDone}>
          Leave
        </Button>
      </Flex>
    </Box>
  );
}
