import { Box, Button } from '@chakra-ui/react';
import type { Drawing, DrawingBrief, OutlineReply } from '@coomb/contract';
import type { HandPlaces, MadeDefinition } from '@coomb/core';
import { useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { notify } from '../../../shared/ui/notices';
import { usePlaceDrawing } from '../../../shared/drawing/made-queries';
import { MadeDesk } from './MadeDesk';

interface Props {
  drawing: Drawing;
  made: NonNullable<Drawing['made']>;
  outline: OutlineReply;
  all: readonly DrawingBrief[];
}

/** A kept drawing of ours: as the project is now, with what was placed by hand. */
export function KeptDrawing({ drawing, made, outline, all }: Props) {
  const project = useProject();
  const place = usePlaceDrawing(project.id);
  const [draft, setDraft] = useState<{ definition: MadeDefinition; hand: HandPlaces }>();
  const definition = draft?.definition ?? made.definition;
  const hand = draft?.hand ?? made.hand;
  const told = [
    ...(made.gone.length > 0 ? [`no more there: ${made.gone.slice(0, 4).join(', ')}${made.gone.length > 4 ? ` and ${made.gone.length - 4} more` : ''}`] : []),
    ...(made.fresh.length > 0 ? [`new: ${made.fresh.length}`] : []),
  ].join('; ');
  return (
    <MadeDesk
      about={drawing}
      definition={definition}
      onDefinition={(next) => setDraft({ definition: next, hand: next.sort === definition.sort ? hand : {} })}
      hand={hand}
      onHand={(change) => setDraft((before) => ({ definition: before?.definition ?? made.definition, hand: change(before?.hand ?? made.hand) }))}
      outline={outline}
      all={all}
      fresh={made.fresh}
      isDraft={draft !== undefined}
    >
      {(places) => (
        <>
          {told && !draft && (
            <Box color="heather.fg" role="status">
              {told}
            </Box>
          )}
          {Object.keys(hand).length > 0 && (
            <Button size="2xs" variant="ghost" onClick={() => setDraft({ definition, hand: {} })} title="Forget what was placed by hand">
              Lay out anew
            </Button>
          )}
          {draft && (
            <Button size="2xs" variant="ghost" onClick={() => setDraft(undefined)}>
              Leave
            </Button>
          )}
          {(draft || told) && (
            <Button
              size="2xs"
              loading={place.isPending}
              onClick={() =>
                place.mutate(
                  { drawing: drawing.id, revision: drawing.revision, definition, hand: keptPlaces(definition, hand, places) },
                  {
                    onSuccess: () => {
                      setDraft(undefined);
                      notify('Kept. Undo takes it back.');
                    },
                  },
                )
              }
            >
              {draft ? 'Keep' : 'Keep as it is now'}
            </Button>
          )}
        </>
      )}
    </MadeDesk>
  );
}

const TREES: ReadonlySet<MadeDefinition['sort']> = new Set(['composition', 'hierarchy', 'trace']);

/** Of trees what was moved; of others where everything stands, so that nothing is ever laid out over it. */
export function keptPlaces({ sort }: MadeDefinition, hand: HandPlaces, places: HandPlaces): HandPlaces {
  return TREES.has(sort) ? hand : places;
}
