import { Box, Button, Flex } from '@chakra-ui/react';
import type { getRealisation, ReplyOf } from '@coomb/contract';
import { counted, figure, sharePercent } from '@coomb/core';
import { Link } from 'react-router';
import { useFiguresLens } from '../../shared/lens/use-figures-lens';
import { useProject } from '../../shared/live/project-queries';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { OneLine } from '../../shared/ui/one-line';
import { Page } from '../../shared/ui/page';
import { useRealisation } from './queries';

type Layer = ReplyOf<typeof getRealisation>[number];

const parts = [
  { by: 'next', label: 'by the next layer', fill: 'moss.solid' },
  { by: 'below', label: 'further below only', fill: 'moss.border' },
  { by: 'none', label: 'not yet', fill: 'transparent' },
] as const;
const countOf = (layer: Layer, by: (typeof parts)[number]['by']) => (by === 'next' ? layer.byNext : layer[by]);

/** Layers from the top, each with what the next makes real of it; every number opens its items, every gap can be walked on the bench. */
export function RealisationPage() {
  const project = useProject();
  const { part: seen, says } = useFiguresLens();
  const realisation = useRealisation(project.id, seen);
  if (realisation.error) return <ErrorNote error={realisation.error} retry={() => void realisation.refetch()} />;
  if (!realisation.data) return <Loading what="the layers" />;
  const layers = realisation.data.filter(({ items }) => items > 0);
  if (layers.length === 0 && seen.lens !== undefined)
    return (
      <EmptyState alone title="Nothing of a layer is seen">
        The lens that is on shows no item of any layer. Look through another, or at everything.
      </EmptyState>
    );
  if (layers.length === 0)
    return (
      <EmptyState alone title="No layer holds anything yet">
        Gather a specification or a model; then it stands here how much of each layer is realised by the next.
      </EmptyState>
    );
  return (
    <Page {...(says && { lead: says })}>
      <Flex gap="5" mb="3" fontSize="13px" color="fg.muted">
        {parts.map(({ by, label, fill }) => (
          <Flex key={by} align="center" gap="1.5">
            <Box w="22px" h="10px" bg={fill} borderWidth="1px" borderColor="border.emphasized" borderStyle={by === 'none' ? 'dashed' : 'solid'} />
            {label}
          </Flex>
        ))}
      </Flex>
      <Box maxW="1100px">
        {layers.map((layer, index) => (
          <LayerBand key={layer.layer} layer={layer} below={layers[index + 1]} />
        ))}
      </Box>
    </Page>
  );
}

function LayerBand({ layer, below }: { layer: Layer; below: Layer | undefined }) {
  const project = useProject();
  const [most] = layer.gaps;
  const nameOf = (id: string) => project.collections.find((one) => one.id === id)?.name ?? '';
  const facing = below && project.collections.find(({ kind }) => project.scheme.kinds.find(({ id }) => id === kind)?.layer === below.layer);
  const walk = most && new URLSearchParams({ left: most.collection, ...(facing && { right: facing.id }), only: 'unlinked', order: 'likely' });
  return (
    <Box as="section" aria-label={layer.label}>
      <Flex align="baseline" gap="3" py="1.5" px="3" bg="bg.panel" borderWidth="1px" borderRadius="l2">
        <Box fontSize="16px" fontWeight="650" flex="1">
          {layer.label}
        </Box>
        <Box asChild fontSize="13.5px" color="fg.muted" _hover={{ textDecoration: 'underline' }}>
          <Link to={`/p/${project.id}/check/figure/layer:${layer.layer}`}>{counted(layer.items, 'item')}</Link>
        </Box>
      </Flex>
      {below && (
        <Flex gap="4" pl="8" pr="3" py="2.5" align="center" borderLeftWidth="2px" borderColor="moss.border" ml="5">
          <Box flex="1">
            <Flex h="20px" borderWidth="1px" borderColor="border.emphasized" overflow="hidden" aria-hidden>
              {parts.map(({ by, fill }) => (
                <Box key={by} bg={fill} style={{ width: `${(100 * countOf(layer, by)) / Math.max(1, layer.items)}%` }} />
              ))}
            </Flex>
            <Flex gap="4" mt="1" fontSize="13px" wrap="wrap">
              {parts.map(({ by, label }) => (
                <Box
                  asChild
                  key={by}
                  color={by === 'none' && layer.none > 0 ? 'brick.fg' : 'fg.muted'}
                  fontWeight={by === 'none' && layer.none > 0 ? '650' : '400'}
                  _hover={{ textDecoration: 'underline' }}
                >
                  <Link to={`/p/${project.id}/check/figure/realised:${layer.layer}:${by}`}>
                    {figure(countOf(layer, by))} {by === 'next' ? `by ${below.label.toLowerCase()}` : label}
                  </Link>
                </Box>
              ))}
              <Box asChild color="fg.muted" _hover={{ textDecoration: 'underline' }}>
                <Link to={`/p/${project.id}/link/all?layers=${encodeURIComponent(`${below.layer}>${layer.layer}`)}`}>the links between</Link>
              </Box>
            </Flex>
          </Box>
          <Box w="4.5rem" textAlign="right" fontSize="20px" fontWeight="650" fontVariantNumeric="tabular-nums">
            {sharePercent(layer.byNext, layer.items)}
          </Box>
          <Box w="12.5rem">
            {walk ? (
              <Button
                asChild
                size="xs"
                variant="outline"
                title={layer.gaps.map(({ collection, count }) => `${nameOf(collection)}: ${figure(count)}`).join('\n')}
              >
                <Link to={`/p/${project.id}/link?${walk}`}>
                  Walk {figure(most.count)}: <OneLine as="span" maxW="9rem" text={nameOf(most.collection)} />
                </Link>
              </Button>
            ) : (
              <Box fontSize="13px" color="moss.fg">
                Nothing is missing
              </Box>
            )}
          </Box>
        </Flex>
      )}
    </Box>
  );
}
