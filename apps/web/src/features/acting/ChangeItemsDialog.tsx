import { Box } from '@chakra-ui/react';
import type { BodyOf, Brief, changeItems } from '@coomb/contract';
import { counted, type FieldValue, figure } from '@coomb/core';
import { useMemo, useState } from 'react';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { notify } from '../../shared/ui/notices';
import { FieldEditor } from '../item-sheet/FieldEditor';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { useChangeItems, useTriedItems } from './queries';

type Change = NonNullable<BodyOf<typeof changeItems>>['change'];

/** Sets a field of many items, or moves them below a section; what becomes of each is said before. */
export function ChangeItemsDialog({
  way,
  items,
  onClose,
  onDone,
}: {
  way: 'field' | 'move';
  items: readonly Brief[];
  onClose: () => void;
  onDone: () => void;
}) {
  const project = useProject();
  const outline = useOutline().data;
  const kinds = new Set(items.map(({ kind }) => kind));
  const fields = [
    ...new Map(project.scheme.kinds.filter(({ id }) => kinds.has(id)).flatMap((kind) => kind.fields.map((field) => [field.id, field] as const))).values(),
  ];
  const collection = items[0]?.collection;
  const sections = useMemo(() => {
    if (!outline) return [];
    const at = outline.collections.indexOf(collection ?? '');
    const depthOf = (row: number): number => (outline.parent[row]! < 0 ? 0 : 1 + depthOf(outline.parent[row]!));
    return outline.id.flatMap((id, row) =>
      outline.collection[row] === at && outline.heading[row] ? [{ value: id, label: `${'\u2003'.repeat(depthOf(row))}${outline.title[row]}` }] : [],
    );
  }, [outline, collection]);
  const [field, setField] = useState(fields[0]?.id ?? '');
  const [value, setValue] = useState<FieldValue>(null);
  const [below, setBelow] = useState('');
  const chosen = fields.find(({ id }) => id === field);
  const wanted: Change | undefined = way === 'move' ? { sort: 'move', below: below || null } : chosen ? { sort: 'field', field, value } : undefined;
  const body = wanted && { items: items.map(({ id }) => id), change: wanted };
  const tried = useTriedItems(project.id, body);
  const change = useChangeItems(project.id);
  const { changed = 0, refused = [] } = tried.data ?? {};
  return (
    <AskDialog
      title={way === 'field' ? `Set a field of ${counted(items.length, 'item')}` : `Move ${counted(items.length, 'item')}`}
      says={
        way === 'field'
          ? 'An empty value clears the field.'
          : 'They go behind what stands there, in the order that they have; what stands below them goes along.'
      }
      verb={changed > 0 ? `Change ${figure(changed)}` : 'Change'}
      disabled={!body || changed === 0 || tried.isFetching}
      busy={change.isPending}
      onDo={() =>
        body &&
        change.mutate(
          { ...body, skipRefused: true },
          {
            onSuccess: (told) => {
              notify(`${counted(told.changed, 'item')} changed. Undo takes it back.`);
              onDone();
            },
          },
        )
      }
      onClose={onClose}
    >
      {way === 'field' ? (
        fields.length === 0 ? (
          <Box color="fg.muted">Items of these kinds have no fields.</Box>
        ) : (
          <>
            <Choice
              label="Field"
              value={field}
              options={fields.map(({ id, label }) => ({ value: id, label }))}
              onChange={(next) => {
                setField(next);
                setValue(null);
              }}
            />
            {chosen && <FieldEditor field={chosen} value={value} onChange={setValue} />}
          </>
        )
      ) : (
        <Choice
          label="Section"
          value={below}
          options={[{ value: '', label: 'at the top of their collection' }, ...sections]}
          onChange={setBelow}
          width="100%"
        />
      )}
      <Box fontSize="13px" minH="2.4rem" aria-live="polite">
        {tried.error ? (
          <Box color="brick.fg">{tried.error.message}</Box>
        ) : (
          tried.data && (
            <>
              <Box>{changed === 0 ? 'Nothing would change.' : `${counted(changed, 'item')} will be changed.`}</Box>
              {refused.length > 0 && (
                <Box color="fg.warning" maxH="6rem" overflowY="auto">
                  {counted(refused.length, 'item')} left as {refused.length === 1 ? 'it is' : 'they are'}:
                  {refused.slice(0, 20).map(({ item, says }) => (
                    <Box key={item}>{says}</Box>
                  ))}
                </Box>
              )}
            </>
          )
        )}
      </Box>
    </AskDialog>
  );
}
