import { describeCounts } from './outcome-words';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { BodyOf, Collection, importFile, TrayEntry } from '@coomb/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { notify } from '../../../shared/ui/notices';
import { ErrorNote } from '../../../shared/ui/feedback';
import { useKeepSource } from '../../source/queries';
import { useImport } from '../queries';
import type { ImportTarget } from './use-import-target';

type Wish = NonNullable<BodyOf<typeof importFile>>;

interface Props {
  entry: TrayEntry;
  to: ImportTarget;
  holds: Collection['holds'];
  proposedName: string;
  proposedPrefix: string;
  /** "123 items, 32 sections, 123 links". */
  summary: string;
  wish: Wish;
  disabled?: boolean;
}

/** Where the items go, and the import itself. */
export function ImportBar({ entry, to, holds, proposedName, proposedPrefix, summary, wish, disabled = false }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const start = useImport(project.id, entry.id);
  const { target, setTarget, newest, likely, older, clipped } = to;
  const isDocument = entry.content.type === 'document';
  const fitting = project.collections.filter((collection) => collection.holds === holds);
  const keep = useKeepSource(project.id);
  const [name, setName] = useState(proposedName);
  const [prefix, setPrefix] = useState(proposedPrefix);
  const badPrefix = !/^[A-Za-z][A-Za-z0-9]{0,9}$/.test(prefix);
  const run = () =>
    start.mutate(
      { ...wish, collection: target === 'new' ? { name, prefix, holds } : { id: target } },
      {
        onSuccess: (job) => {
          if (job.state !== 'done') return;
          notify(`Imported ${describeCounts(job.outcome!)}`);
          void navigate(`/p/${project.id}/shape/${job.outcome!.collection}`);
        },
      },
    );
  const failure = start.error ?? (start.data && start.data.state !== 'done' ? new Error(start.data.message) : undefined);
  return (
    <Box bg="bg.panel" borderTopWidth="1px" px="6" py="2" flexShrink={0}>
      {failure && <ErrorNote error={failure} />}
      <Flex align="center" gap="3">
        <Box flex="1" fontSize="13.5px">
          {summary}
        </Box>
        <Box color="fg.muted" fontSize="13px">
          {older ? 'as a' : 'into'}
        </Box>
        <Choice
          label="Collection"
          value={target}
          options={[
            { value: 'new', label: 'a new collection' },
            ...(isDocument ? [{ value: 'clip', label: 'nothing yet: keep it to clip from' }] : []),
            ...(isDocument && likely ? [{ value: `clip:${likely.id}`, label: `keep to clip from, as a newer ${likely.name}` }] : []),
            ...fitting.map((collection) => ({ value: collection.id, label: collection.name })),
            ...newest.flatMap(({ id, collection, name: older }) => (collection === null ? [] : [{ value: `again:${id}`, label: `newer version of ${older}` }])),
            ...newest.flatMap(({ id, collection, name: older }) =>
              collection === null ? [] : [{ value: `other:${id}`, label: `${older}, come through another tool` }],
            ),
          ]}
          onChange={setTarget}
        />
        {target === 'new' && (
          <>
            <Input size="xs" w="190px" aria-label="Name of the collection" value={name} onChange={(event) => setName(event.target.value)} bg="bg" />
            <Input
              size="xs"
              w="74px"
              fontFamily="mono"
              aria-label="Prefix of references"
              title="Prefix of references that Coomb gives"
              value={prefix}
              onChange={(event) => setPrefix(event.target.value.toUpperCase())}
              bg="bg"
              aria-invalid={badPrefix}
            />
          </>
        )}
        <Button size="xs" variant="ghost" onClick={() => void navigate(`/p/${project.id}/gather`)}>
          Leave
        </Button>
        {target === 'clip' || clipped ? (
          <Button
            size="sm"
            loading={keep.isPending}
            onClick={() =>
              keep.mutate(
                { tray: entry.id, ...(clipped && { again: clipped.id }) },
                { onSuccess: ({ source }) => void navigate(`/p/${project.id}/gather/sources/${source}`) },
              )
            }
          >
            Keep
          </Button>
        ) : older ? (
          <Button
            size="sm"
            disabled={disabled}
            onClick={() =>
              void navigate(`/p/${project.id}/gather/${entry.id}/compare?source=${older.id}${target.startsWith('other:') ? '&other=yes' : ''}`, { state: wish })
            }
          >
            Compare…
          </Button>
        ) : (
          <Button
            size="sm"
            onClick={run}
            loading={start.isPending}
            loadingText="Importing…"
            disabled={disabled || (target === 'new' && (!name.trim() || badPrefix))}
          >
            Import
          </Button>
        )}
      </Flex>
    </Box>
  );
}
