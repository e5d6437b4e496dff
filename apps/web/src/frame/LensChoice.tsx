import { Box, Button, Flex, IconButton } from '@chakra-ui/react';
import { counted } from '@coomb/core';
import { Aperture, X } from 'lucide-react';
import { useMemo } from 'react';
import { lookThrough, nextLens } from '../shared/lens/through';
import { useLens } from '../shared/lens/use-lens';
import { lookAsOf } from '../shared/moment/moment';
import { useSavedViews } from '../shared/saved-views/queries';
import { Choice } from '../shared/ui/choice';
import { useKeys } from '../shared/ui/use-keys';
import type { View } from '../shared/view';
import { KeptList } from './KeptList';
import { LookButton } from './LookButton';

/** What the project is looked at through, beside its name: the same in every view, and plain to see when it is not everything. */
export function LensChoice({ project, here }: { project: string; here: View | undefined }) {
  const lens = useLens();
  const saved = useSavedViews(project).data;
  const lenses = useMemo(() => (saved ?? []).filter(({ sort }) => sort === 'lens'), [saved]);
  const mode = lens?.mode ?? 'only';
  const choose = (id: string | undefined) => lookThrough(project, id ? { lens: id, mode } : undefined);
  const keys = useMemo(() => {
    const ids = lenses.map(({ id }) => id);
    const step = (by: 1 | -1) => () => {
      const next = nextLens(ids, lens?.lens, by);
      lookThrough(project, next ? { lens: next, mode } : undefined);
    };
    return { '\\': step(1), '|': step(-1) };
  }, [lenses, lens?.lens, mode, project]);
  useKeys(keys);
  const name = lens && (lenses.find(({ id }) => id === lens.lens)?.name ?? lens.seen?.name ?? 'a lens');
  const kept = lenses.find(({ id }) => id === lens?.lens);
  const body = kept?.body;
  const moment = Number(body?.moment ?? 0);
  const isHere = here?.looksThrough === true;
  return (
    <Flex align="center" minW="0" flexShrink={1} {...(lens && { bg: 'bg.muted', borderRadius: 'l2' })}>
      <LookButton
        says={lens ? `through ${name}` : 'everything'}
        isOn={lens !== undefined}
        icon={<Aperture size={13} />}
        title={'What one looks through (\\ and |)'}
        label="Lenses"
      >
        <KeptList
          project={project}
          kept={lenses}
          on={lens?.lens}
          onChoose={choose}
          empty={['No lens is kept yet. Compose conditions in the', ', and keep them as one.']}
        >
          {lens && (
            <Choice
              label="What it does not show"
              value={lens.mode}
              width="100%"
              options={[
                { value: 'only', label: 'only these are shown' },
                { value: 'lit', label: 'these are lit, the rest is faint' },
              ]}
              onChange={(next) => lookThrough(project, { lens: lens.lens, mode: next as 'only' })}
            />
          )}
          {Boolean(body?.note) && <Box>{String(body?.note)}</Box>}
          {kept && <Box color="fg.muted">{body?.owner ? `Of ${String(body.owner)}, kept by ${kept.person}` : `Of ${kept.person}`}</Box>}
          {moment > 0 && (
            <Button size="2xs" variant="outline" onClick={() => lookAsOf(project, { seq: moment, says: `change ${moment}` })}>
              Look as of change {moment}, which belongs to it
            </Button>
          )}
          {lens?.error && <Box color="brick.fg">{lens.error.message}</Box>}
          {lens?.seen && (
            <Box color="fg.muted">
              {counted(lens.seen.items, 'item')}, {counted(lens.seen.linksWithin, 'link')} between them; {counted(lens.seen.linksAcross, 'link')}{' '}
              {lens.seen.linksAcross === 1 ? 'leads' : 'lead'} out of it.
              {lens.seen.unknown.length > 0 && ' One of its conditions asks for what is not in the project, and narrows nothing.'}
            </Box>
          )}
          {!isHere && <Box color="fg.warning">This view shows everything: its figures are of all items.</Box>}
          <Button size="2xs" variant="outline" onClick={() => choose(undefined)}>
            Look at everything
          </Button>
        </KeptList>
      </LookButton>
      {lens && (
        <>
          {(lens.error || !isHere) && (
            <Box fontSize="12px" color="fg.warning" whiteSpace="nowrap" display={{ base: 'none', lg: 'block' }}>
              {lens.error ? 'kept no more: all is shown' : 'not here: all is shown'}
            </Box>
          )}
          <IconButton aria-label="Look at everything" title="Look at everything" size="2xs" variant="plain" onClick={() => choose(undefined)}>
            <X size={12} />
          </IconButton>
        </>
      )}
    </Flex>
  );
}
