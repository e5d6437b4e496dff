import { Box } from '@chakra-ui/react';
import type { Drawing } from '@coomb/contract';
import { routeStrength } from '@coomb/core';
import { memo, useDeferredValue } from 'react';

const MOST = 2000;

type Words = Pick<Drawing, 'shapes' | 'routes'>;
const NOTHING: Words = { shapes: [], routes: [] };

/** The drawing in words, for those who hear it: every shape with what it lies in, and every line by its ends. */
export const ShapeOutline = memo(function ShapeOutline({
  drawing,
  describe,
  strengths,
}: {
  drawing: Words;
  /** How strongly shapes are drawn through a lens: what is not drawn is not said. */
  strengths?: ArrayLike<number> | undefined;
  /** The same as long as it says the same: thousands of lines are not written again for every move of the hand. */
  describe: (shape: number) => string;
}) {
  // The picture comes first.
  const { shapes, routes } = useDeferredValue(drawing, NOTHING);
  return (
    <Box
      position="absolute"
      top="0"
      left="-10000px"
      width="600px"
      height="400px"
      overflow="hidden"
      whiteSpace="nowrap"
      // Nothing outside hangs on how it is laid out. (What is not laid out at all would not be read out.)
      style={{ contain: 'strict' }}
    >
      <h2>The drawing in words</h2>
      <ul aria-label="Shapes">
        {shapes.slice(0, MOST).map((shape, index) =>
          shape.name && strengths?.[index] !== 0 ? (
            <li key={shape.id}>
              {describe(index)}
              {shape.inside >= 0 && shapes[shape.inside]?.name ? `, inside ${shapes[shape.inside]!.name}` : ''}
            </li>
          ) : null,
        )}
      </ul>
      <ul aria-label="Lines">
        {routes.slice(0, MOST).map((route) =>
          strengths && routeStrength(route, strengths) === 0 ? null : (
            <li key={route.id}>
              {shapes[route.from]?.name || 'something'} {route.label || 'leads to'} {shapes[route.to]?.name || 'something'}
            </li>
          ),
        )}
      </ul>
    </Box>
  );
});
