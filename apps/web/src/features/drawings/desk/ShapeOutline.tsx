import { Box } from '@chakra-ui/react';
import type { Drawing } from '@coomb/contract';
import { memo } from 'react';

const MOST = 2000;

/** The drawing in words, for those who hear it: every shape with what it lies in, and every line by its ends. */
export const ShapeOutline = memo(function ShapeOutline({
  drawing,
  describe,
}: {
  drawing: Pick<Drawing, 'shapes' | 'routes'>;
  describe: (shape: number) => string;
}) {
  const { shapes, routes } = drawing;
  return (
    <Box srOnly>
      <h2>The drawing in words</h2>
      <ul aria-label="Shapes">
        {shapes.slice(0, MOST).map((shape, index) =>
          shape.name ? (
            <li key={shape.id}>
              {describe(index)}
              {shape.inside >= 0 && shapes[shape.inside]?.name ? `, inside ${shapes[shape.inside]!.name}` : ''}
            </li>
          ) : null,
        )}
      </ul>
      <ul aria-label="Lines">
        {routes.slice(0, MOST).map((route) => (
          <li key={route.id}>
            {shapes[route.from]?.name ?? 'something'} {route.label || 'leads to'} {shapes[route.to]?.name ?? 'something'}
          </li>
        ))}
      </ul>
    </Box>
  );
});
