import { Box, Button, Flex, IconButton } from '@chakra-ui/react';
import { figure, findKind, withinSentence } from '@coomb/core';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Link } from 'react-router';
import { type Project, useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { OneLine } from '../../shared/ui/one-line';
import { NameLine } from './NameLine';
import { useEditCollection, useWithdrawCollection } from './queries';

type Collection = Project['collections'][number];

/** One collection: its name, what its new items become, where it stands. `order` are those that it stands among. */
export function CollectionLine({ collection, order }: { collection: Collection; order: readonly Collection[] }) {
  const project = useProject();
  const edit = useEditCollection(project.id);
  const withdraw = useWithdrawCollection(project.id);
  const at = order.indexOf(collection);
  const change = (more: { name?: string; kind?: string; set?: string | null; before?: string | null }) => edit.mutate({ collection: collection.id, ...more });
  const kind = findKind(project.scheme, collection.kind);
  const kinds = project.scheme.kinds.filter((one) => !one.retired || one.id === collection.kind);
  return (
    <Flex py="1" borderTopWidth="1px" align="center" columnGap="3" rowGap="1" wrap="wrap" aria-label={collection.name} role="listitem">
      <Box flex="1 1 16rem" minW="0">
        <NameLine name={collection.name} what={collection.name} onRename={(name) => change({ name })}>
          <OneLine text={collection.name} fontFamily="serif" fontSize="16px">
            <Link to={`/p/${project.id}/shape/${collection.id}`}>{collection.name}</Link>
          </OneLine>
        </NameLine>
      </Box>
      <Box w="5rem" textAlign="right" color="fg.muted" fontSize="13px">
        {figure(collection.items)} {collection.items === 1 ? 'item' : 'items'}
      </Box>
      <Box w="5rem" fontFamily="mono" fontSize="12.5px" color="fg.muted" title="Prefix of new references">
        {collection.prefix}
      </Box>
      <Choice
        label={`What new items of ${collection.name} become`}
        width="11rem"
        value={collection.kind}
        options={kinds.map((one) => ({ value: one.id, label: withinSentence(one.plural) + (one.retired ? ' (retired)' : '') }))}
        onChange={(next) => change({ kind: next })}
      />
      <Choice
        label={`Set of ${collection.name}`}
        width="11rem"
        value={collection.set ?? ''}
        options={[{ value: '', label: 'of the whole project' }, ...project.sets.map((set) => ({ value: set.id, label: set.name }))]}
        onChange={(set) => change({ set: set || null })}
      />
      <Flex>
        <IconButton
          size="2xs"
          variant="ghost"
          aria-label={`Move ${collection.name} up`}
          title="Up, among those of its layer"
          disabled={at <= 0 || !sharesLayer(at, at - 1)}
          onClick={() => change({ before: order[at - 1]!.id })}
        >
          <ArrowUp size={13} />
        </IconButton>
        <IconButton
          size="2xs"
          variant="ghost"
          aria-label={`Move ${collection.name} down`}
          title="Down, among those of its layer"
          disabled={at >= order.length - 1 || !sharesLayer(at, at + 1)}
          onClick={() => change({ before: order[at + 2]?.id ?? null })}
        >
          <ArrowDown size={13} />
        </IconButton>
        <Button size="2xs" variant="ghost" onClick={() => withdraw.mutate(collection.id)}>
          Withdraw
        </Button>
      </Flex>
    </Flex>
  );

  function sharesLayer(one: number, other: number): boolean {
    const layer = (index: number) => findKind(project.scheme, order[index]!.kind)?.layer ?? kind?.layer;
    return layer(one) === layer(other);
  }
}
