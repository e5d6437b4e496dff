import type { OutlineReply } from '@coomb/contract';
import { figure } from '@coomb/core';
import { Box, Flex, Heading } from '@chakra-ui/react';
import { useMemo } from 'react';
import { Link, Navigate, NavLink, useLocation, useNavigate, useParams } from 'react-router';
import { LitItems } from '../../shared/lens/lit';
import { useSeenOutline } from '../../shared/lens/use-lens';
import { findRequirements } from '../../shared/live/find-requirements';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { CollectionForm } from './CollectionForm';
import { Specification } from './Specification';
import { useWindowTitle } from '../../shared/ui/window-title';
import { useView } from '../../shared/view';

/** A collection typeset for reading, with its contents at the left. */
export function ReadPage() {
  const project = useProject();
  const whole = useOutline();
  const outline = useSeenOutline();
  const { collection: id } = useParams();
  const { search } = useLocation();
  const navigate = useNavigate();
  const sheetIsOpen = new URLSearchParams(search).has('item');
  const index = project.collections.findIndex((one) => one.id === id);
  const collection = project.collections[index];
  const view = useView();
  useWindowTitle(collection?.name ?? view?.name ?? '');
  const rows = useMemo(() => rowsOf(outline.data, index), [outline.data, index]);
  const all = useMemo(() => whole.data && { outline: whole.data, rows: rowsOf(whole.data, index) }, [whole.data, index]);
  if (outline.error) return <ErrorNote error={outline.error} retry={() => void outline.refetch()} />;
  if (!outline.data || !all) return <Loading what="the specification" />;
  const first = findRequirements(project);
  if (!id && first) return <Navigate to={`/p/${project.id}/shape/${first.id}${search}`} replace />;
  if (!collection)
    return (
      <EmptyState alone title={id ? 'This collection is not there any more' : 'Nothing to read yet'} action={<CollectionForm />}>
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/gather`}>Gather a document</Link>
        </Box>
        , or start an empty collection and write in it.
      </EmptyState>
    );
  return (
    <Flex h="100%" direction={{ base: 'column', md: 'row' }}>
      <Heading as="h1" srOnly>
        {collection.name}
      </Heading>
      <Box display={{ base: 'block', md: 'none' }} px="2" py="1" flexShrink={0} borderBottomWidth="1px" bg="bg.panel">
        <Choice
          label="Collection"
          width="100%"
          value={id ?? ''}
          options={project.collections.map((one) => ({ value: one.id, label: `${one.name} (${figure(one.items)})` }))}
          onChange={(next) => void navigate(`/p/${project.id}/shape/${next}`)}
        />
      </Box>
      <Box
        display={sheetIsOpen ? 'none' : { base: 'none', md: 'block' }}
        w="236px"
        flexShrink={0}
        borderRightWidth="1px"
        overflow="auto"
        py="3"
        bg="bg.panel"
        as="nav"
        aria-label="Collections"
      >
        {project.collections.map((one) => (
          <Box key={one.id}>
            <Flex asChild px="4" py="1" gap="2" align="baseline" bg={one.id === id ? 'moss.subtle' : undefined} _hover={{ bg: 'bg.subtle' }}>
              <NavLink to={`/p/${project.id}/shape/${one.id}`}>
                <Box flex="1" fontWeight={one.id === id ? '600' : '400'}>
                  {one.name}
                </Box>
                <Box color="fg.muted" fontSize="12px">
                  {figure(one.items)}
                </Box>
              </NavLink>
            </Flex>
            {one.id === id && <Contents rows={rows} outline={outline.data} />}
          </Box>
        ))}
        <Box px="4" mt="4">
          <CollectionForm />
        </Box>
      </Box>
      <Box flex="1" minW="0" minH="0">
        <LitItems outline={outline.data} rows={outline.lit}>
          <Specification key={id} collection={collection} outline={outline.data} rows={rows} whole={all} />
        </LitItems>
      </Box>
    </Flex>
  );
}

function rowsOf(outline: OutlineReply | undefined, collection: number): number[] {
  return outline && collection >= 0 ? outline.id.flatMap((_, row) => (outline.collection[row] === collection ? [row] : [])) : [];
}

function Contents({ rows, outline }: { rows: number[]; outline: NonNullable<ReturnType<typeof useOutline>['data']> }) {
  const headings = rows.filter((row) => outline.heading[row] && (outline.parent[row]! < 0 || outline.parent[outline.parent[row]!]! < 0));
  return headings.slice(0, 200).map((row) => (
    <Box
      asChild
      key={row}
      display="block"
      pl={outline.parent[row]! < 0 ? '6' : '9'}
      pr="3"
      py="0.5"
      fontSize="13px"
      color={outline.parent[row]! < 0 ? 'fg' : 'fg.muted'}
      truncate
      _hover={{ color: 'moss.fg' }}
    >
      <Link to={`?at=${encodeURIComponent(outline.reference[row]!)}`} title={outline.title[row]}>
        {outline.clause[row] && `${outline.clause[row]}\u2002`}
        <bdi>{outline.title[row]}</bdi>
      </Link>
    </Box>
  ));
}
