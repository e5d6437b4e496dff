import { Box } from '@chakra-ui/react';
import type { ReplyOf, readImpact } from '@coomb/contract';
import { figure } from '@coomb/core';
import { useCallback, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { ofSameLife } from '../../shared/live/same-life';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { useItemAddress } from '../../shared/ui/reference';
import { useSeams } from '../section/queries';
import { SectionCanvas } from '../section/SectionCanvas';
import { useStrata } from '../section/use-strata';
import { litRows } from './impact-rows';

type Impact = ReplyOf<typeof readImpact>;

/** An impact on the section: what would be touched is lit, and evidence is shown as it would become. */
export function ImpactSection({ impact }: { impact: Impact }) {
  const project = useProject();
  const outline = useOutline();
  const seams = ofSameLife(outline.data, useSeams(project.id, project.links).data);
  const { layers, pairs } = useStrata(project, outline.data, seams);
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [hovered, setHovered] = useState<number>();
  const rowOf = useMemo(() => new Map(outline.data?.id.map((id, row) => [id, row])), [outline.data]);
  const { roots, traced, becomes } = useMemo(() => litRows(impact, rowOf), [impact, rowOf]);
  const open = useCallback((row: number) => outline.data && void navigate(itemAddress(outline.data.reference[row]!)), [outline.data, navigate, itemAddress]);
  if (outline.error) return <ErrorNote error={outline.error} retry={() => void outline.refetch()} />;
  if (!outline.data) return <Loading what="the section" />;
  const all = impact.upstream.total + impact.downstream.total;
  const told = impact.upstream.items.length + impact.downstream.items.length;
  return (
    <>
      {told < all && (
        <Box px="4" py="1" fontSize="13px" color="fg.muted">
          The nearest {figure(told)} of {figure(all)} are lit.
        </Box>
      )}
      <Box flex="1" minH="0" p="2" bg="bg">
        <SectionCanvas
          outline={outline.data}
          base={`/p/${project.id}`}
          layers={layers}
          seams={pairs}
          hovered={hovered}
          traced={traced}
          roots={roots}
          becomes={becomes}
          brushed={undefined}
          onHover={setHovered}
          onBrush={() => undefined}
          onOpen={open}
        />
      </Box>
    </>
  );
}
