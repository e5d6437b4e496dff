import { describe, expect, it } from 'vitest';
import { buildScene, findNeighbour } from './drawing-scene.js';
import { routeStrength, shapeStrengths, withoutUnseen } from './drawn-through.js';

/** A site that holds a gate with a port, a lock, and a note. */
const shapes = [{ inside: -1 }, { inside: 0 }, { inside: 1 }, { inside: -1 }, { inside: -1 }];
const seen =
  (...indices: number[]) =>
  (index: number) =>
    index === 4 ? undefined : indices.includes(index);
const rounded = (strengths: Float32Array) => Array.from(strengths, (one) => Math.round(one * 100) / 100);

describe('a drawing through a lens', () => {
  it('leaves out what is not seen, but keeps what holds it, faintly', () => {
    expect(rounded(shapeStrengths(shapes, seen(2), 'only'))).toEqual([0.4, 0.4, 1, 0, 0.25]);
  });

  it('keeps all of it where others are only lit', () => {
    expect(rounded(shapeStrengths(shapes, seen(1), 'lit'))).toEqual([0.25, 1, 0.25, 0.25, 0.25]);
  });

  it('comes to an end where shapes hold one another', () => {
    expect(rounded(shapeStrengths([{ inside: 1 }, { inside: 0 }], (index) => index === 0, 'only'))).toEqual([1, 0.4]);
  });

  it('draws a route as strongly as the weaker of its ends; an end that is no shape takes nothing away', () => {
    const strengths = [1, 0.4, 0];
    expect([routeStrength({ from: 0, to: 1 }, strengths), routeStrength({ from: 0, to: 2 }, strengths), routeStrength({ from: 0, to: -1 }, strengths)]).toEqual(
      [0.4, 0, 1],
    );
  });

  it('says nothing of what is not drawn, in its place', () => {
    const named = ['Weir', 'Gate'].map((name) => ({ name, element: name, keyword: '«block»', parts: [] }));
    expect(withoutUnseen(named, [1, 0])).toEqual([named[0], { name: '', element: '', keyword: undefined, parts: undefined }]);
    const spots = ['a', 'b', 'c'].map((name, at) => ({
      id: name,
      element: name,
      item: null,
      figure: 'box' as const,
      name,
      x: at * 100,
      y: 0,
      width: 50,
      height: 50,
      inside: -1,
    }));
    const scene = buildScene({ shapes: withoutUnseen(spots, [1, 0, 1]), routes: [] });
    expect(findNeighbour(scene, 0, 'right')).toBe(2);
  });
});
