import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useSeenOutline } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { useItemAddress } from '../../shared/ui/reference';
import { ofSameLife } from '../../shared/live/same-life';
import { useReadiness, useSeams, useTrace } from './queries';
import { SectionCanvas } from './SectionCanvas';
import { SectionFigures } from './SectionFigures';
import { useStrata } from './use-strata';
import { useWindowTitle } from '../../shared/ui/window-title';
import { useView } from '../../shared/view';

/** Home of a project: the cross-section through its layers. */
export function SectionPage() {
  const project = useProject();
  useWindowTitle(useView()?.name ?? '');
  const outline = useSeenOutline();
  const readiness = useReadiness(project.id);
  const seams = ofSameLife(outline.data, useSeams(project.id, project.links).data);
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const sheetIsOpen = useSearchParams()[0].has('item');
  const [hovered, setHovered] = useState<number>();
  const [brushed, setBrushed] = useState<ReadonlySet<number>>();
  const trace = ofSameLife(outline.data, useTrace(project.id, hovered === undefined ? undefined : outline.data?.id[hovered]).data);
  const { layers, pairs, rowOf } = useStrata(project, outline.data, seams);
  const traced = useMemo(
    () =>
      trace && hovered !== undefined
        ? new Map([...trace.up, ...trace.down].flatMap(([node, distance]): [number, number][] => (rowOf.has(node) ? [[rowOf.get(node)!, distance]] : [])))
        : undefined,
    [trace, hovered, rowOf],
  );
  const isThrough = outline.isThrough;
  /** Figures count what the lens shows. */
  const throughLens = useMemo(
    () => outline.lit ?? (isThrough && outline.data ? new Set([...outline.data.id.keys()].filter((row) => !outline.data!.heading[row])) : undefined),
    [outline.lit, outline.data, isThrough],
  );
  const open = useCallback((row: number) => outline.data && void navigate(itemAddress(outline.data.reference[row]!)), [outline.data, navigate, itemAddress]);
  if (outline.error) return <ErrorNote error={outline.error} retry={() => void outline.refetch()} />;
  if (!outline.data || !readiness.data) return <Loading what="the section" />;
  if (outline.data.id.length === 0) return <FirstSteps base={`/p/${project.id}`} />;
  const kinds = new Set(project.scheme.verification.of.kinds);
  const isRequirement = (row: number) => kinds.has(project.scheme.kinds[outline.data.kind[row]!]?.id ?? '') && !outline.data.heading[row];
  return (
    <Flex h="100%">
      <Heading as="h1" srOnly>
        The section of {project.name}
      </Heading>
      <Box flex="1" minW="0" p="2">
        <SectionCanvas
          outline={outline.data}
          base={`/p/${project.id}`}
          layers={layers}
          seams={pairs}
          hovered={hovered}
          traced={traced}
          brushed={brushed ?? outline.lit}
          onHover={setHovered}
          onBrush={setBrushed}
          onOpen={open}
        />
      </Box>
      {!sheetIsOpen && (
        <SectionFigures
          base={`/p/${project.id}`}
          readiness={readiness.data}
          outline={outline.data}
          brushed={brushed ?? throughLens}
          isBrushed={brushed !== undefined}
          isRequirement={isRequirement}
          onRelease={() => setBrushed(undefined)}
        />
      )}
    </Flex>
  );
}

function FirstSteps({ base }: { base: string }) {
  return (
    <EmptyState
      alone
      title="Nothing has been gathered yet"
      action={
        <Button asChild size="sm">
          <Link to={`${base}/gather`}>Gather the first file</Link>
        </Button>
      }
    >
      Begin with a requirements document. A model, test cases and results come next; then link them, and this section shows where the ground is missing.
    </EmptyState>
  );
}
