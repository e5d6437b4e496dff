import { Box } from '@chakra-ui/react';
import type { Drawing, OutlineReply } from '@coomb/contract';
import { figure } from '@coomb/core';
import { useLayoutEffect, useRef, useState } from 'react';
import type { DrawnLinks } from './drawn-links';

const MOST = 8;
const WIDTH = 320;

/** What the shape under the hand is linked with; it stays within the drawing, so that the list beside it can be read and taken from. */
export function HoverNote({
  at,
  drawing,
  outline,
  drawn,
}: {
  at: { shape: number; x: number; y: number };
  drawing: Pick<Drawing, 'shapes' | 'routes'>;
  outline: OutlineReply;
  drawn: DrawnLinks;
}) {
  const note = useRef<HTMLDivElement>(null);
  const [right, setRight] = useState(window.innerWidth);
  useLayoutEffect(() => {
    const within = note.current?.parentElement?.getBoundingClientRect();
    if (within && within.width > WIDTH) setRight(within.right);
  }, []);
  const row = drawn.rowOf[at.shape] ?? -1;
  const links = row < 0 ? [] : (drawn.of.get(row) ?? []);
  if (row < 0 || links.length === 0) return null;
  return (
    <Box
      ref={note}
      position="fixed"
      pointerEvents="none"
      bg="bg.panel"
      borderWidth="1px"
      borderColor="border.emphasized"
      boxShadow="sm"
      px="3"
      py="1.5"
      w={`${WIDTH}px`}
      zIndex="1"
      fontSize="13px"
      style={{
        left: Math.min(at.x + 14, right - WIDTH - 8),
        ...(at.y > window.innerHeight - 220 ? { bottom: window.innerHeight - at.y + 10 } : { top: at.y + 16 }),
      }}
    >
      <Box fontWeight="600" mb="0.5">
        {drawing.shapes[at.shape]!.name || outline.title[row]}
      </Box>
      {links.slice(0, MOST).map((link) => (
        <Box key={link.id} lineHeight="1.35" py="0.5">
          <Box as="span" color="fg.muted">
            {link.phrase}{' '}
          </Box>
          <Box as="span" fontFamily="mono" fontSize="12px" color="moss.fg">
            {outline.reference[link.other]}
          </Box>{' '}
          <bdi>{outline.title[link.other]}</bdi>
          {link.usage && (
            <Box as="span" color="fg.muted">
              {' '}
              (in {link.usage} only)
            </Box>
          )}
        </Box>
      ))}
      {links.length > MOST && <Box color="fg.muted">and {figure(links.length - MOST)} more; choose the shape to list them</Box>}
    </Box>
  );
}
