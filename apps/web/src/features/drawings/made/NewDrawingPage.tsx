import { Button, Input } from '@chakra-ui/react';
import { findMadeSort, type HandPlaces } from '@coomb/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useAddress } from '../../../shared/address';
import { useOutline, useProject } from '../../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../../shared/ui/feedback';
import { notify } from '../../../shared/ui/notices';
import { useWholes } from '../../../shared/live/wholes';
import { useKeepDrawing } from '../../../shared/drawing/made-queries';
import { address, readDefinition } from '../../../shared/drawing/made-definition';
import { keptPlaces } from './KeptDrawing';
import { MadeDesk } from './MadeDesk';

/** A drawing that is not kept yet: looked at, placed, then kept under a name. */
export function NewDrawingPage() {
  const project = useProject();
  const navigate = useNavigate();
  const outline = useOutline();
  const wholes = useWholes(project.id);
  const [view, set] = useAddress(address);
  const [hand, setHand] = useState<HandPlaces>({});
  const [name, setName] = useState<string>();
  const keep = useKeepDrawing(project.id);
  const error = outline.error ?? wholes.error;
  if (error) return <ErrorNote error={error} />;
  if (!outline.data || !wholes.data) return <Loading what="the drawing" />;
  const asked = readDefinition(view);
  const isUnsaid = asked.about === '' && findMadeSort(asked.sort)?.about !== 'scope';
  // Without systems there is still an outline to draw.
  const first = wholes.data.wholes[0]?.item.id;
  const definition = isUnsaid
    ? first
      ? { ...asked, about: first }
      : { ...asked, sort: 'overview' as const, about: '' }
    : asked.sort === 'hierarchy' && asked.about === ''
      ? { ...asked, about: project.collections[0]?.id ?? '' }
      : asked;
  const label = findMadeSort(definition.sort)?.label ?? 'Drawing';
  const row = outline.data.id.indexOf(definition.about);
  const of = row >= 0 ? outline.data.title[row]! : (project.collections.find(({ id }) => id === definition.about)?.name ?? project.name);
  const usual = `${label} of ${of}`;
  const collection = row >= 0 ? project.collections[outline.data.collection[row]!]!.id : (project.collections[0]?.id ?? '');
  return (
    <MadeDesk
      about={{ id: '', item: null, name: usual, collection }}
      definition={definition}
      onDefinition={({ sort, about, levels, detail }) => {
        setHand({});
        set({ sort, about, levels, detail: detail.join(',') });
      }}
      hand={hand}
      onHand={setHand}
      outline={outline.data}
      all={[]}
      isDraft
    >
      {(places) =>
        name === undefined ? (
          <Button size="2xs" onClick={() => setName(usual)}>
            Keep…
          </Button>
        ) : (
          <form
            style={{ display: 'flex', gap: 6 }}
            onSubmit={(event) => {
              event.preventDefault();
              keep.mutate(
                { name: name.trim(), definition, hand: keptPlaces(definition, hand, places) },
                {
                  onSuccess: ({ drawing }) => {
                    notify('Kept. It stays current by itself.');
                    void navigate(`/p/${project.id}/shape/drawings/${drawing}`);
                  },
                },
              );
            }}
          >
            <Input
              size="2xs"
              w="16rem"
              autoFocus
              aria-label="Name of the drawing"
              value={name}
              maxLength={200}
              onChange={(event) => setName(event.target.value)}
            />
            <Button size="2xs" type="submit" disabled={!name.trim()} loading={keep.isPending}>
              Keep
            </Button>
            <Button size="2xs" variant="ghost" onClick={() => setName(undefined)}>
              Leave
            </Button>
          </form>
        )
      }
    </MadeDesk>
  );
}
