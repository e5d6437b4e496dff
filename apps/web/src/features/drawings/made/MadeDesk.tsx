import { Box, Button, Flex } from '@chakra-ui/react';
import type { Drawing, DrawingBrief, OutlineReply } from '@coomb/contract';
import { counted, type HandPlaces, type MadeDefinition } from '@coomb/core';
import { useMemo, useRef, useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../../shared/ui/feedback';
import { Page } from '../../../shared/ui/page';
import { DrawingDesk, type Making } from '../desk/DrawingDesk';
import { usePlan } from '../../../shared/drawing/made-queries';
import { MadeBar } from './MadeBar';
import { moveNode, useMade } from './use-made';

interface Props {
  about: Pick<Drawing, 'id' | 'item' | 'name' | 'collection'> & Partial<Pick<Drawing, 'revision' | 'boxes'>>;
  definition: MadeDefinition;
  onDefinition: (definition: MadeDefinition) => void;
  hand: HandPlaces;
  onHand: (change: (hand: HandPlaces) => HandPlaces) => void;
  outline: OutlineReply;
  all: readonly DrawingBrief[];
  fresh?: readonly string[];
  isDraft: boolean;
  /** What is said of the drawing, and what can be done with it: gets where all nodes stand now. */
  children: (places: HandPlaces) => React.ReactNode;
}

const NONE: readonly string[] = [];

/** A drawing of ours, kept or new: planned on the server, placed here, linked like any other. */
export function MadeDesk({ about, definition, onDefinition, hand, onHand, outline, all, fresh = NONE, isDraft, children }: Props) {
  const project = useProject();
  const plan = usePlan(project.id, definition);
  const [made, layingOut] = useMade(plan.data, outline, hand);
  const [placing, setPlacing] = useState(false);
  const now = useRef({ graph: plan.data, places: made?.places ?? {} });
  now.current = { graph: plan.data, places: made?.places ?? now.current.places };
  const freshSet = useMemo(() => new Set(fresh), [fresh]);
  const bar = (
    <MadeBar definition={definition} outline={outline} onChange={onDefinition}>
      {children(made?.places ?? {})}
    </MadeBar>
  );
  if (plan.error || !made || !plan.data)
    return (
      <Page fill title={about.name}>
        <Flex direction="column" h="100%">
          {bar}
          <Box p="6">
            {plan.error ? (
              <ErrorNote error={plan.error} />
            ) : layingOut.busy ? (
              <Flex gap="3" align="center" role="status">
                <Box color="fg.muted">Laying out {counted(plan.data?.nodes.length ?? 0, 'shape')}…</Box>
                <Button size="2xs" variant="outline" onClick={layingOut.cancel}>
                  Leave it in rows
                </Button>
              </Flex>
            ) : (
              <Loading what="what it shows" />
            )}
          </Box>
        </Flex>
      </Page>
    );
  const { shapes, routes } = made;
  const making: Making = {
    bar,
    placing,
    isDraft,
    fresh: freshSet,
    actions: (
      <>
        {plan.data.cut && (
          <Box fontSize="12.5px" color="fg.warning">
            cut at {counted(plan.data.nodes.length, 'shape')}
          </Box>
        )}
        {layingOut.error && (
          <Box fontSize="12.5px" color="fg.warning">
            {layingOut.error.message}
          </Box>
        )}
        <Flex gap="0" role="radiogroup" aria-label="Dragging" borderWidth="1px" borderRadius="l2">
          {([false, true] as const).map((one) => (
            <Button
              key={String(one)}
              size="2xs"
              variant={placing === one ? 'solid' : 'ghost'}
              role="radio"
              aria-checked={placing === one}
              onClick={() => setPlacing(one)}
              title={one ? 'Dragging moves shapes  M' : 'Dragging links shapes  M'}
            >
              {one ? 'place' : 'link'}
            </Button>
          ))}
        </Flex>
      </>
    ),
    onMove: (shape, by) => {
      const key = shapes[shape]?.id;
      const { graph, places } = now.current;
      if (!key || !graph) return;
      const next = moveNode(graph, {}, places, key, by);
      // Of a tree only the distance is known; the rest is added where the present one is at hand.
      onHand((before) => (graph.isTree ? moveNode(graph, before, places, key, by) : next));
      if (!graph.isTree) now.current.places = next;
    },
    keys: { m: () => setPlacing(!placing) },
  };
  if (shapes.length === 0)
    return (
      <Page fill title={about.name}>
        <Flex direction="column" h="100%">
          {bar}
          <Box p="6" color="fg.muted">
            Nothing of this sort is there. Choose something else above.
          </Box>
        </Flex>
      </Page>
    );
  return <DrawingDesk making={making} drawing={{ ...about, sort: 'other', shapes, routes }} outline={outline} all={all} />;
}
