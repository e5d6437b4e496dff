import { RichText } from '../../shared/ui/rich-text';
import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { getKind, groupBy, stateWords } from '@coomb/core';
import { format } from 'date-fns';
import { useState } from 'react';
import { Link } from 'react-router';
import { readDrafts } from '../../shared/drafts/drafts';
import { useProject } from '../../shared/live/project-queries';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import { Coverage } from './Coverage';
import { DrawnIn } from './DrawnIn';
import { FieldText } from './FieldEditor';
import { HereToo } from './HereToo';
import { InUse } from './InUse';
import { ItemEditor } from './ItemEditor';
import { type Sheet, useEditItem, useHistory, useRestore, useSplitItem, useWithdraw } from './queries';
import { hasSteps, Steps } from './Steps';
import { Trail } from './Trail';
import { useInUse } from './use-in-use';
import { WaitingEnds } from './WaitingEnds';
import { useAtHand } from '../../shared/marks/at-hand';
import { AddRelated } from '../linking/AddRelated';
import { Words } from '../../shared/ui/words';
import { OneLine } from '../../shared/ui/one-line';

/** The item sheet: text, fields, trail, coverage, evidence, place in its source, changes. The same beside a view and full. */
export function SheetBody({ sheet, wide = false }: { sheet: Sheet; wide?: boolean }) {
  const project = useProject();
  const kind = getKind(project.scheme, sheet.kind);
  const edit = useEditItem(project.id);
  // A text that was begun and not stored is taken up where it was left.
  const [editing, setEditing] = useState(() => sheet.id in readDrafts(project.id) && !sheet.withdrawn);
  const split = useSplitItem(project.id);
  const withdraw = useWithdraw(project.id);
  const restore = useRestore(project.id);
  const [use, setUse] = useInUse(sheet.id);
  const [adding, setAdding] = useState(false);
  useAtHand(sheet.withdrawn || sheet.heading ? [] : [sheet]);
  const fields = kind.fields.filter((field) => sheet.fields[field.id] !== undefined && sheet.fields[field.id] !== null);
  if (editing)
    return (
      <Box px="5" py="3">
        <ItemEditor
          project={project.id}
          item={sheet}
          draftId={sheet.id}
          path={`items/${sheet.reference}`}
          kind={kind}
          onStore={(written, revision, settled) => edit.mutateAsync({ id: sheet.id, revision, ...written, ...(settled && { settled }) })}
          onDone={() => setEditing(false)}
          onSplit={sheet.heading ? undefined : (parts) => split.mutateAsync({ id: sheet.id, ...parts }).then(() => setEditing(false))}
        />
      </Box>
    );
  return (
    <Box px="5" pb="8">
      <HereToo project={project.id} item={sheet.id} writing={false} />
      {sheet.withdrawn && (
        <Flex bg="brick.subtle" color="brick.fg" px="3" py="1.5" my="2" align="center">
          <Box flex="1">Withdrawn. Its history, links and reference survive.</Box>
          <Button size="2xs" variant="outline" onClick={() => restore.mutate([sheet.id])}>
            Restore
          </Button>
        </Flex>
      )}
      {sheet.path.length > 0 && (
        <Box fontSize="12.5px" color="fg.muted" pt="1">
          {sheet.path.map((one, at) => (
            <span key={one.id}>
              {at > 0 && ' › '}
              <bdi>{one.title}</bdi>
            </span>
          ))}
        </Box>
      )}
      <Heading as={wide ? 'h1' : 'h2'} dir="auto" overflowWrap="anywhere" fontFamily="serif" fontSize="20px" fontWeight="600" lineHeight="1.25" my="1">
        {sheet.title}
      </Heading>
      <Flex columnGap="3" rowGap="1" wrap="wrap" align="center" fontSize="13px" color="fg.muted" mb="2">
        <Box>{sheet.heading ? 'Section' : kind.label}</Box>
        {sheet.state !== 'notApplicable' && <StateMark state={sheet.state} />}
        <Box ml="auto" />
        {!sheet.withdrawn && (
          <Button size="2xs" variant="outline" onClick={() => setEditing(true)}>
            Edit
          </Button>
        )}
        {!sheet.withdrawn && (
          <Button size="2xs" variant="ghost" onClick={() => withdraw.mutate([sheet.id])}>
            Withdraw
          </Button>
        )}
      </Flex>
      {sheet.uses > 0 && <InUse sheet={sheet} use={use} onChoose={setUse} />}
      {sheet.html && <RichText className="rich" fontFamily="serif" fontSize="16px" lineHeight="1.55" html={sheet.html} />}
      {fields.map((field) => (
        <Flex key={field.id} gap="3" py="0.5" fontSize="13.5px">
          <Box w="130px" flexShrink={0} color="fg.muted">
            {field.label}
          </Box>
          <Box flex="1">
            <FieldText field={field} value={sheet.fields[field.id]} />
          </Box>
        </Flex>
      ))}
      {hasSteps(project.scheme, sheet) && (
        <Part title="Steps">
          <Steps sheet={sheet} />
        </Part>
      )}
      <Details sheet={sheet} />
      <Part
        title="Trail"
        action={
          !sheet.withdrawn &&
          !sheet.heading && (
            <Flex gap="2">
              <Button asChild size="2xs" variant="ghost">
                <Link to={`/p/${project.id}/link/impact?items=${sheet.reference}`} title="What a change of it would touch">
                  Impact
                </Link>
              </Button>
              <Button size="2xs" variant="outline" onClick={() => setAdding(true)} title="Link another item, or make one that is linked (I)">
                Link…
              </Button>
            </Flex>
          )
        }
      >
        <Flex gap="6" direction={{ base: 'column', md: wide ? 'row' : 'column' }}>
          <Trail project={project.id} title="Upstream: what it rests on" empty="Nothing upstream" links={sheet.upstream} use={use} />
          <Trail project={project.id} title="Downstream: what rests on it" empty="Nothing downstream" links={sheet.downstream} use={use} />
        </Flex>
        {sheet.waiting.length > 0 && <WaitingEnds project={project.id} waiting={sheet.waiting} />}
      </Part>
      {adding && <AddRelated item={sheet} onClose={() => setAdding(false)} />}
      {sheet.coverage.length > 0 && (
        <Part title={use ? 'Coverage in this use' : 'Coverage'}>
          <Coverage project={project.id} sheet={sheet} />
        </Part>
      )}
      <Evidence sheet={sheet} />
      <DrawnIn project={project.id} sheet={sheet} />
      <Part title="Where it comes from">
        <Box fontSize="13.5px">
          {sheet.source ? (
            <>
              {sheet.place?.says} of{' '}
              <Box asChild textDecoration="underline">
                <Link to={`/p/${project.id}/gather/sources/${sheet.source.id}?at=${sheet.reference}`} title="Show in the source">
                  {sheet.source.name}
                </Link>
              </Box>
            </>
          ) : sheet.origin === 'made' ? (
            'Written here'
          ) : (
            sheet.origin
          )}
          <Box color="fg.muted">
            Added {format(new Date(sheet.createdAt), 'd MMM yyyy, HH:mm')}; last changed {format(new Date(sheet.changedAt), 'd MMM yyyy, HH:mm')} by{' '}
            {sheet.changedBy}
          </Box>
        </Box>
      </Part>
      <Changes project={project.id} item={sheet.id} />
      <Box mt="3" fontSize="13px">
        <Box asChild textDecoration="underline" color="fg.muted">
          <Link to={`/p/${project.id}/shape/${sheet.collection}?at=${sheet.reference}`}>Show in the specification</Link>
        </Box>
      </Box>
    </Box>
  );
}

function Part({ title, action, children }: { title: string; action?: React.ReactNode; children: React.ReactNode }) {
  return (
    <Box mt="5">
      <Flex align="center" justify="space-between" fontWeight="600" mb="1">
        {title}
        {action}
      </Flex>
      {children}
    </Box>
  );
}

/** What the source says of the inside of the item. */
function Details({ sheet }: { sheet: Sheet }) {
  if (sheet.details.length === 0) return null;
  return (
    <Part title="In its source">
      {[...groupBy(sheet.details, ({ sort }) => sort)].map(([sort, list]) => (
        <Flex key={sort} gap="3" py="0.5" fontSize="13.5px">
          <Box w="130px" flexShrink={0} color="fg.muted">
            {sort}
          </Box>
          <Box flex="1" minW="0" fontFamily="mono" fontSize="12.5px" lineHeight="1.5" overflowWrap="anywhere">
            {list.map(({ text, element }) => (
              <Box key={element}>{text}</Box>
            ))}
          </Box>
        </Flex>
      ))}
    </Part>
  );
}

function Evidence({ sheet }: { sheet: Sheet }) {
  if (sheet.results.length > 0)
    return (
      <Part title="Results">
        {sheet.results.slice(0, 10).map((result, index) => (
          <Box key={index} borderTopWidth="1px" py="1" fontSize="13.5px">
            <Flex gap="2">
              <Box flex="1">
                {result.run}, {format(new Date(result.at), 'd MMM yyyy')}
              </Box>
              <Box fontWeight="600" color={result.outcome === 'passed' ? 'moss.fg' : result.outcome === 'skipped' ? 'fg.muted' : 'brick.fg'}>
                {result.outcome}
              </Box>
            </Flex>
            {result.message && <Box color="fg.muted">{result.message}</Box>}
          </Box>
        ))}
      </Part>
    );
  if (sheet.evidence.length === 0) return null;
  return (
    <Part title={`Evidence: ${stateWords[sheet.state].label.toLowerCase()}`}>
      <Box fontSize="12.5px" color="fg.muted" mb="1">
        {stateWords[sheet.state].ofOne}
      </Box>
      {sheet.evidence.map((one) => (
        <Box key={one.test.id} borderTopWidth="1px" py="1" fontSize="13.5px">
          <Flex gap="2" align="baseline">
            <Reference reference={one.test.reference} />
            <OneLine flex="1" text={one.test.title} />
            <Box fontWeight="600" color={one.outcome === 'passed' ? 'moss.fg' : one.outcome === null || one.outcome === 'skipped' ? 'fg.muted' : 'brick.fg'}>
              {one.outcome ?? 'not run'}
            </Box>
          </Flex>
          {one.run && (
            <Box color="fg.muted" fontSize="12.5px">
              {one.run}, {format(new Date(one.at!), 'd MMM yyyy')}
              {one.stale && '; the requirement or the test changed since'}
            </Box>
          )}
          {one.message && <Box color="fg.muted">{one.message}</Box>}
        </Box>
      ))}
    </Part>
  );
}

function Changes({ project, item }: { project: string; item: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Box mt="5">
      <Button size="xs" variant="ghost" px="0" onClick={() => setOpen(!open)} aria-expanded={open}>
        {open ? 'Hide' : 'Show'} its changes
      </Button>
      {open && <ChangeList project={project} item={item} />}
    </Box>
  );
}

function ChangeList({ project, item }: { project: string; item: string }) {
  const history = useHistory(project, item);
  return history.data?.map((entry) => (
    <Box key={entry.seq} borderTopWidth="1px" py="1.5" fontSize="13.5px">
      <Box color="fg.muted" fontSize="12.5px">
        {format(new Date(entry.at), 'd MMM yyyy, HH:mm')} · {entry.person} · {entry.of && `${entry.of}: `}
        {entry.action}
      </Box>
      {entry.changes
        .filter((change) => change.field !== 'Place' || entry.changes.length === 1)
        .map((change) => (
          <Flex key={change.field} gap="3">
            <Box w="90px" flexShrink={0} color="fg.muted">
              {change.field}
            </Box>
            <Box flex="1">
              <Words words={change.words} />
            </Box>
          </Flex>
        ))}
    </Box>
  ));
}
