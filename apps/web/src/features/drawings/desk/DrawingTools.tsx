import { Box, Button, Flex } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight, Maximize, Minus, Plus, Printer } from 'lucide-react';
import { Link } from 'react-router';
import type { DrawingControl } from '../../../shared/drawing/DrawingCanvas';
import { printSvg, savePng, saveSvg } from './save-drawing';

/** Where a drawing stands among all, and the ways to those beside it; nothing for one that is not kept yet. */
export function DrawingPlace({ project, at, count, onGo }: { project: string; at: number; count: number; onGo: (by: number) => void }) {
  if (at < 0) return null;
  return (
    <Flex gap="0" align="center">
      <Button size="2xs" variant="ghost" disabled={at <= 0} onClick={() => onGo(-1)} aria-label="Drawing before" title="Drawing before  [">
        <ChevronLeft size={14} />
      </Button>
      <Box asChild textDecoration="underline" fontSize="13px" color="fg.muted">
        <Link to={`/p/${project}/shape/drawings`}>
          {at + 1} of {count}
        </Link>
      </Box>
      <Button size="2xs" variant="ghost" disabled={at + 1 >= count} onClick={() => onGo(1)} aria-label="Drawing after" title="Drawing after  ]">
        <ChevronRight size={14} />
      </Button>
    </Flex>
  );
}

/** How large a drawing is shown, and what can be taken away of it. */
export function DrawingTools({ name, control }: { name: string; control: React.RefObject<DrawingControl | null> }) {
  return (
    <>
      <Flex gap="0">
        <Button size="2xs" variant="ghost" onClick={() => control.current?.zoom(0.8)} aria-label="Smaller" title="Smaller  −">
          <Minus size={14} />
        </Button>
        <Button size="2xs" variant="ghost" onClick={() => control.current?.zoom(1.25)} aria-label="Larger" title="Larger  +">
          <Plus size={14} />
        </Button>
        <Button size="2xs" variant="ghost" onClick={() => control.current?.fit()} aria-label="Show all" title="Show all  0">
          <Maximize size={13} />
        </Button>
      </Flex>
      <Flex gap="0">
        <Button size="2xs" variant="ghost" onClick={() => saveSvg(name, control.current!.toSvg(name))}>
          SVG
        </Button>
        <Button size="2xs" variant="ghost" onClick={() => void savePng(name, control.current!.toSvg(name))}>
          PNG
        </Button>
        <Button size="2xs" variant="ghost" onClick={() => printSvg(control.current!.toSvg(name))} aria-label="Print" title="Print the drawing">
          <Printer size={13} />
        </Button>
      </Flex>
    </>
  );
}
