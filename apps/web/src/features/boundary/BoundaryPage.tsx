import { Box, Button, Flex, Grid, Input } from '@chakra-ui/react';
import type { Brief } from '@coomb/contract';
import { counted, findAllowedLinks, findKindOfRole, linkKindsOfRole } from '@coomb/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { Reference } from '../../shared/ui/reference';
import { writeDefinition } from '../../shared/drawing/made-definition';
import { useMakeLink } from '../linking/queries';
import { useAddRelated } from '../../shared/live/add-related';
import { ComponentField, findNamed, useComponents } from './ComponentField';
import { type Boundary, useAddMember, useBoundary, useMakeContext } from './queries';

const address = z.object({ about: z.string().default(''), only: z.enum(['all', 'missing']).default('all') });

/** The system and what is outside it, the top function of each, and who performs which function; what is missing is mended where it is told. */
export function BoundaryPage() {
  const project = useProject();
  const [view, set] = useAddress(address);
  const boundary = useBoundary(project.id, view.about);
  if (boundary.error) return <ErrorNote error={boundary.error} />;
  if (!boundary.data) return <Loading what="the boundary" />;
  const { contexts, context, members, functions, missing } = boundary.data;
  if (!context)
    return (
      <EmptyState alone title="No context yet">
        A context is made of the system and what is outside it.
        <Box mt="3">
          <NewContext onMade={(about) => set({ about })} />
        </Box>
      </EmptyState>
    );
  const onlyMissing = view.only === 'missing';
  const shownMembers = onlyMissing ? members.filter((member) => member.functions.length === 0) : members;
  const shownFunctions = onlyMissing ? functions.filter(({ performers }) => performers.length === 0) : functions;
  const isWhole = missing.functions + missing.performers === 0;
  return (
    <Page
      lead={
        isWhole
          ? 'Nothing is missing: each system has a function, and each function is performed.'
          : `${counted(missing.functions, 'system')} without a function, ${counted(missing.performers, 'function')} that nobody performs.`
      }
      actions={
        <>
          <Choice
            label="Context"
            value={context.id}
            options={contexts.map((one) => ({ value: one.id, label: one.title }))}
            onChange={(about) => set({ about })}
          />
          <Button
            size="2xs"
            variant={onlyMissing ? 'solid' : 'outline'}
            aria-pressed={onlyMissing}
            onClick={() => set({ only: onlyMissing ? 'all' : 'missing' })}
          >
            only what is missing
          </Button>
          <Button asChild size="2xs" variant="outline">
            <Link to={`/p/${project.id}/shape/drawings/new?${writeDefinition({ sort: 'composition', about: context.id, levels: 1 })}`}>Draw it</Link>
          </Button>
          <NewContext onMade={(about) => set({ about })} />
        </>
      }
    >
      <Grid templateColumns={{ base: '1fr', xl: '5fr 6fr' }} gap="8">
        <Box as="section" aria-label="Systems">
          <Head title={`Made of ${counted(members.length, 'system')}`} />
          {shownMembers.map((member) => (
            <MemberLine key={member.part.id} member={member} />
          ))}
          {shownMembers.length === 0 && <Box color="fg.muted">Each has a function.</Box>}
          <AddSystem context={context} members={members} />
        </Box>
        <Box as="section" aria-label="Functions">
          <Head title={`${counted(functions.length, 'function')} and who performs them`} />
          {shownFunctions.map((one) => (
            <FunctionLine key={one.item.id} entry={one} members={members} />
          ))}
          {shownFunctions.length === 0 && <Box color="fg.muted">{functions.length === 0 ? 'No functions yet: give a system one.' : 'Each is performed.'}</Box>}
        </Box>
      </Grid>
    </Page>
  );
}

function Head({ title }: { title: string }) {
  return (
    <Box as="h2" fontWeight="600" fontSize="15px" borderBottomWidth="1px" pb="1" mb="1">
      {title}
    </Box>
  );
}

function Named({ item, indent = 0 }: { item: Brief; indent?: number }) {
  return (
    <Flex flex="1" minW="0" gap="2" align="baseline" style={{ paddingLeft: indent * 14 }}>
      <Reference reference={item.reference} />
      <OneLine fontFamily="serif" fontSize="15px" text={item.title} />
    </Flex>
  );
}

/** A system with its functions; without one, a function is made for it on the spot, at home where functions are. */
function MemberLine({ member: { part, system, functions } }: { member: Boundary['members'][number] }) {
  const project = useProject();
  const add = useAddRelated(project.id);
  const [title, setTitle] = useState('');
  const kind = findKindOfRole(project.scheme, 'function');
  const allocates = linkKindsOfRole(project.scheme, 'allocates').find((one) => kind && one.fromKinds.includes(kind.id) && one.toKinds.includes(system.kind));
  return (
    <Box borderBottomWidth="1px" py="1.5" data-member={system.title}>
      <Flex gap="2" align="baseline">
        <Named item={system} />
        {part.title !== system.title && <OneLine fontSize="12.5px" color="fg.muted" maxW="40%" text={`as ${part.title}`} />}
      </Flex>
      {functions.map(({ link, other }) => (
        <Flex key={link} gap="2" align="baseline" pl="5" fontSize="13.5px">
          <Box color="fg.muted">performs</Box>
          <Named item={other} />
        </Flex>
      ))}
      {functions.length === 0 && kind && allocates && (
        <Flex
          as="form"
          gap="2"
          pl="5"
          pt="1"
          align="center"
          onSubmit={(event) => {
            event.preventDefault();
            if (!title.trim()) return;
            add.mutate(
              { item: system.id, title: title.trim(), kind: kind.id, linkKind: allocates.id, reversed: true, collection: system.collection },
              { onSuccess: () => setTitle('') },
            );
          }}
        >
          <Box color="brick.fg" fontSize="13px" flexShrink={0}>
            no function
          </Box>
          <Input
            size="2xs"
            flex="1"
            aria-label={`What ${system.title} is there for`}
            placeholder="What is it there for?"
            value={title}
            maxLength={500}
            onChange={(event) => setTitle(event.target.value)}
          />
          <Button size="2xs" type="submit" variant="outline" disabled={!title.trim()} loading={add.isPending}>
            Give it
          </Button>
        </Flex>
      )}
    </Box>
  );
}

/** A function with its performers and what the allocation says; without one, it is given to a system of the context. */
function FunctionLine({ entry: { item, depth, performers }, members }: { entry: Boundary['functions'][number]; members: Boundary['members'] }) {
  const project = useProject();
  const make = useMakeLink(project.id);
  const { scheme } = project;
  const allowed = (other: Brief) => findAllowedLinks(scheme, item.kind, other.kind).find(({ linkKind }) => linkKind.role === 'allocates');
  const options = members.filter(({ system }) => allowed(system) && !performers.some(({ other }) => other.id === system.id));
  const kind = linkKindsOfRole(scheme, 'allocates')[0];
  const give = (id: string) => {
    const system = members.find((one) => one.system.id === id)?.system;
    const way = system && allowed(system);
    if (!system || !way) return;
    const [from, to] = way.reversed ? [system.id, item.id] : [item.id, system.id];
    make.mutate([{ linkKind: way.linkKind.id, from, to }]);
  };
  return (
    <Flex borderBottomWidth="1px" py="1" gap="3" align="baseline" data-function={item.title}>
      <Named item={item} indent={Math.min(depth, 8)} />
      <Box w="48%" fontSize="13.5px">
        {performers.map(({ link, other, fields }, at) => (
          <Flex key={link} gap="2" align="baseline">
            <Named item={other} />
            <OneLine
              fontSize="12px"
              color="fg.muted"
              maxW="50%"
              text={(kind?.fields ?? []).flatMap(({ id, label }) => (fields[id] ? [`${label}: ${String(fields[id])}`] : [])).join('; ')}
            />
            {at === performers.length - 1 && options.length > 0 && <Giver item={item} options={options} first="+" onGive={give} width="3.6em" />}
          </Flex>
        ))}
        {performers.length === 0 && options.length > 0 && <Giver item={item} options={options} first="nobody yet: choose who" onGive={give} width="100%" />}
      </Box>
    </Flex>
  );
}

function Giver({
  item,
  options,
  first,
  onGive,
  width,
}: {
  item: Brief;
  options: Boundary['members'];
  first: string;
  onGive: (id: string) => void;
  width: string;
}) {
  return (
    <Choice
      label={`Who performs ${item.title}`}
      value=""
      options={[{ value: '', label: first }, ...options.map(({ system }) => ({ value: system.id, label: system.title }))]}
      onChange={onGive}
      width={width}
    />
  );
}

/** One that is there, or a new one by its name. */
function AddSystem({ context, members }: { context: Brief; members: Boundary['members'] }) {
  const project = useProject();
  const add = useAddMember(project.id);
  const [text, setText] = useState('');
  const known = useMemo(() => new Set([context.id, ...members.map(({ system }) => system.id)]), [context.id, members]);
  const offered = useComponents(known);
  const there = findNamed(offered, text);
  return (
    <Flex
      as="form"
      gap="2"
      pt="2"
      align="center"
      onSubmit={(event) => {
        event.preventDefault();
        const wanted = there ? { system: there.id } : { title: text.trim() };
        if (text.trim()) add.mutate({ context: context.id, ...wanted }, { onSuccess: () => setText('') });
      }}
    >
      <ComponentField label="Another system, one that is there or a new one" offered={offered} value={text} onChange={setText} />
      <Button size="2xs" type="submit" variant="outline" disabled={!text.trim()} loading={add.isPending}>
        {text.trim() && !there ? 'Add as new' : 'Add'}
      </Button>
    </Flex>
  );
}

const NONE: ReadonlySet<string> = new Set();

function NewContext({ onMade }: { onMade: (id: string) => void }) {
  const project = useProject();
  const make = useMakeContext(project.id);
  const offered = useComponents(NONE);
  const [title, setTitle] = useState<string>();
  const [text, setText] = useState('');
  const system = findNamed(offered, text);
  if (title === undefined)
    return (
      <Button size="2xs" onClick={() => setTitle('')}>
        New context
      </Button>
    );
  return (
    <Flex
      as="form"
      gap="2"
      align="center"
      onSubmit={(event) => {
        event.preventDefault();
        if (title.trim() && system)
          make.mutate(
            { title: title.trim(), systems: [system.id] },
            {
              onSuccess: ({ context }) => {
                setTitle(undefined);
                setText('');
                onMade(context);
              },
            },
          );
      }}
    >
      <Input
        size="2xs"
        w="12rem"
        autoFocus
        aria-label="Name of the context"
        placeholder="Name of the context"
        value={title}
        maxLength={200}
        onChange={(event) => setTitle(event.target.value)}
      />
      <ComponentField label="The system" offered={offered} value={text} onChange={setText} />
      <Button size="2xs" type="submit" disabled={!title.trim() || !system} loading={make.isPending}>
        Make it
      </Button>
      <Button size="2xs" variant="ghost" onClick={() => setTitle(undefined)}>
        Leave
      </Button>
    </Flex>
  );
}
