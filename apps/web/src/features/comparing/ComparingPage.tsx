import { Box, Button, Flex } from '@chakra-ui/react';
import type { ComparedRow } from '@coomb/contract';
import { figure } from '@coomb/core';
import { format } from 'date-fns';
import { Download } from 'lucide-react';
import { Link } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useLens } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { useMoment } from '../../shared/moment/moment';
import { useMoments } from '../../shared/live/use-moments';
import { saveFile } from '../../shared/save-file';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { notifyError } from '../../shared/ui/notices';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { Reference } from '../../shared/ui/reference';
import { Words } from '../../shared/ui/words';
import { AsRegister } from '../acting/AsRegister';
import { ComparedDrawings } from './ComparedDrawings';
import { ComparedFigures } from './ComparedFigures';
import { type Asked, saveCompared, useCompared } from './queries';

const address = z.object({
  since: z.coerce.number().int().min(0).default(0).catch(0),
  entity: z.enum(['', 'item', 'link']).default(''),
  did: z.enum(['', 'came', 'went', 'changed', 'moved']).default(''),
  person: z.string().default(''),
  group: z.enum(['section', 'person', 'change', 'did']).default('section'),
  /** What is compared: items and links, drawings one over the other, or figures. */
  what: z.enum(['', 'drawings', 'figures']).default(''),
});
const dids = ['came', 'went', 'changed', 'moved'] as const;
const sayAt = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm');

/** What is different between an earlier moment and the one that is looked at. */
export function ComparingPage() {
  const project = useProject();
  const lens = useLens();
  const moment = useMoment(project.id);
  const [asked, set] = useAddress(address);
  const { earlier, changes, now, options: moments } = useMoments(project.id);
  // The newest baseline, or else the first change that is listed.
  const since = asked.since || (earlier[0]?.seq ?? Math.max(1, Math.min(changes?.at(-1)?.seq ?? 1, now)));
  const wish: Asked | undefined = changes && {
    since,
    group: asked.group,
    ...(asked.entity && { entity: asked.entity }),
    ...(asked.did && { did: asked.did }),
    ...(asked.person && { person: asked.person }),
    ...(lens && !lens.error && { lens: lens.lens }),
  };
  const compared = useCompared(project.id, wish);
  const first = compared.data?.pages[0];
  // What went is in no register any more.
  const listed = [
    ...new Map(
      compared.hasNextPage
        ? []
        : (compared.data?.pages ?? []).flatMap(({ rows }) =>
            rows.flatMap(({ did, item }) => (did === 'went' || item.heading ? [] : [[item.id, item] as const])),
          ),
    ).values(),
  ];
  const save = (as: 'docx' | 'xlsx' | 'csv') => wish && saveCompared(project.id, as, wish).then(({ name, blob }) => saveFile(name, blob), notifyError);
  const options = moments.some(({ value }) => value === String(since)) ? moments : [{ value: String(since), label: `change ${since}` }, ...moments];
  return (
    <Page
      fill={asked.what === 'drawings'}
      lead={first ? `from ${sayAt(first.from.at)} to ${moment ? moment.says : 'now'}, change ${first.from.seq} to ${first.to.seq}` : undefined}
      actions={
        <>
          <Box maxW="22rem">
            <Choice label="Compare with" value={String(since)} options={options} width="22rem" onChange={(value) => set({ since: Number(value) })} />
          </Box>
          <Choice
            label="What is compared"
            value={asked.what}
            options={[
              { value: '', label: 'items and links' },
              { value: 'drawings', label: 'drawings' },
              { value: 'figures', label: 'figures' },
            ]}
            onChange={(value) => set({ what: value as '' })}
          />
          {asked.what === '' && (
            <Choice
              label="Grouped by"
              value={asked.group}
              options={[
                { value: 'section', label: 'by section' },
                { value: 'person', label: 'by person' },
                { value: 'change', label: 'by change' },
                { value: 'did', label: 'by what became of it' },
              ]}
              onChange={(value) => set({ group: value as 'section' })}
            />
          )}
          {asked.what === '' &&
            (['docx', 'xlsx', 'csv'] as const).map((as) => (
              <Button key={as} size="xs" variant="outline" disabled={!first || first.total === 0} onClick={() => void save(as)}>
                {as === 'docx' && <Download size={13} />} .{as}
              </Button>
            ))}
        </>
      }
    >
      {asked.what === 'figures' && changes && <ComparedFigures since={since} />}
      {asked.what === 'drawings' && changes && <ComparedDrawings since={since} />}
      {asked.what === '' && compared.error && <ErrorNote error={compared.error} retry={() => void compared.refetch()} />}
      {asked.what === '' && !first && !compared.error && <Loading what="the comparison" />}
      {asked.what === '' && first && (
        <>
          <Flex gap="4" wrap="wrap" fontSize="13px" mb="3" align="center">
            {(['item', 'link'] as const).map((entity) => (
              <Flex key={entity} gap="1" align="center" role="group" aria-label={entity === 'item' ? 'Items' : 'Links'}>
                <Box color="fg.muted">{entity === 'item' ? 'Items' : 'Links'}</Box>
                {dids
                  .filter((did) => entity === 'item' || did !== 'moved')
                  .map((did) => {
                    const count = (entity === 'item' ? first.items : first.links)[did];
                    const isOn = asked.entity === entity && asked.did === did;
                    return (
                      <Button
                        key={did}
                        size="2xs"
                        variant={isOn ? 'solid' : 'outline'}
                        aria-pressed={isOn}
                        disabled={count === 0}
                        onClick={() => set(isOn ? { entity: '', did: '' } : { entity, did })}
                      >
                        {figure(count)} {did}
                      </Button>
                    );
                  })}
              </Flex>
            ))}
            {first.persons.length > 1 && (
              <Choice
                label="Whose last hand"
                value={asked.person}
                options={[
                  { value: '', label: 'by anybody' },
                  ...first.persons.map(({ person, count }) => ({ value: person, label: `by ${person} (${count})` })),
                ]}
                onChange={(person) => set({ person })}
              />
            )}
            <AsRegister items={listed} />
            {lens && !lens.error && <Box color="fg.muted">Only what is seen through the lens that is on.</Box>}
          </Flex>
          {first.total === 0 && <EmptyState title="Nothing is different">Both moments say the same, as far as is asked here.</EmptyState>}
          <Rows rows={compared.data!.pages.flatMap(({ rows }) => rows)} groups={first.groups} />
          {compared.hasNextPage && (
            <Button mt="3" size="xs" variant="outline" loading={compared.isFetchingNextPage} onClick={() => void compared.fetchNextPage()}>
              More of {figure(first.total)}
            </Button>
          )}
        </>
      )}
    </Page>
  );
}

const looks = {
  came: { mark: '+', colour: 'moss.fg' },
  went: { mark: '−', colour: 'brick.fg' },
  changed: { mark: '≠', colour: 'fg.warning' },
  moved: { mark: '↷', colour: 'heather.fg' },
};

function Rows({ rows, groups }: { rows: readonly ComparedRow[]; groups: readonly { label: string; count: number }[] }) {
  const counts = new Map(groups.map(({ label, count }) => [label, count]));
  return rows.map((row, at) => (
    <Box key={`${row.entity} ${row.item.id} ${row.other?.id} ${row.seq} ${at}`}>
      {row.group !== rows[at - 1]?.group && (
        <Box as="h2" fontWeight="600" fontSize="14px" mt={at > 0 ? '4' : '0'} mb="1">
          {row.group}{' '}
          <Box as="span" color="fg.muted" fontWeight="400">
            {figure(counts.get(row.group) ?? 0)}
          </Box>
        </Box>
      )}
      <Row row={row} />
    </Box>
  ));
}

function Row({ row }: { row: ComparedRow }) {
  const project = useProject();
  const { mark, colour } = looks[row.did];
  return (
    <Flex gap="3" py="1" borderTopWidth="1px" borderColor="border.muted" align="baseline" fontSize="14px">
      <Flex w="6.5em" flexShrink={0} gap="1.5" color={colour}>
        <Box as="span" w="1em" aria-hidden>
          {mark}
        </Box>
        {row.did}
      </Flex>
      <Box flex="1" minW="0">
        <Flex gap="2" align="baseline" minW="0">
          <Reference reference={row.item.reference} />
          <OneLine
            maxW={row.phrase ? '24em' : undefined}
            fontFamily="serif"
            textDecoration={row.did === 'went' && !row.phrase ? 'line-through' : undefined}
            text={row.item.title}
          />
          {row.phrase && (
            <>
              <Box color="fg.muted" flexShrink={0}>
                {row.phrase}
              </Box>
              {row.other && (
                <>
                  <Reference reference={row.other.reference} />
                  <OneLine maxW="24em" fontFamily="serif" text={row.other.title} />
                </>
              )}
            </>
          )}
        </Flex>
        {row.did !== 'came' &&
          row.did !== 'went' &&
          row.parts.map(({ part, words }) => (
            <Flex key={part} gap="2" fontSize="13px">
              <Box color="fg.muted" w="6em" flexShrink={0}>
                {part}
              </Box>
              <Box minW="0">
                <Words words={words} />
              </Box>
            </Flex>
          ))}
      </Box>
      <Box asChild flexShrink={0} color="fg.muted" fontSize="13px" textAlign="right" w="15em" title={sayAt(row.at)}>
        <Link to={`/p/${project.id}/changes/${row.seq}`}>
          {row.person}, change {row.seq}
        </Link>
      </Box>
    </Flex>
  );
}
