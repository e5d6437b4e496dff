import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { Link } from 'react-router';
import { DrawingThumb } from '../../shared/drawing/DrawingThumb';
import type { Sheet } from './queries';

/** Drawings that show the item: the picture on hover or focus, and a way there with its shape chosen. */
export function DrawnIn({ project, sheet }: { project: string; sheet: Sheet }) {
  const [shown, setShown] = useState<string>();
  if (sheet.drawnIn.length === 0) return null;
  const picture = sheet.drawnIn.find((one) => one.drawing === shown);
  return (
    <Box mt="5">
      <Box fontWeight="600" mb="1">
        Drawn in
      </Box>
      {sheet.drawnIn.map(({ drawing, name, shapes, shapeIds }) => (
        <Flex key={drawing} gap="2" fontSize="13.5px" py="0.5" align="baseline">
          <Box asChild textDecoration="underline" minW="0" overflowWrap="anywhere">
            <Link
              to={`/p/${project}/shape/drawings/${drawing}?shape=${encodeURIComponent(shapeIds[0] ?? '')}`}
              onMouseEnter={() => setShown(drawing)}
              onMouseLeave={() => setShown(undefined)}
              onFocus={() => setShown(drawing)}
              onBlur={() => setShown(undefined)}
            >
              {name || 'Unnamed drawing'}
            </Link>
          </Box>
          {shapes.length > 1 && <Box color="fg.muted">{shapes.length} times</Box>}
        </Flex>
      ))}
      {picture && (
        <Box mt="2" h="220px" borderWidth="1px" bg="bg" pointerEvents="none">
          <DrawingThumb project={project} drawing={picture.drawing} lit={picture.shapes} />
        </Box>
      )}
    </Box>
  );
}
