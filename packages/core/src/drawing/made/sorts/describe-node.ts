import type { Figure } from '../../figure.js';
import type { MadeDetail, MadeNode } from '../made-graph.js';
import type { MadeGround } from '../made-ground.js';

/** Figures that the notation has for what plays a part. */
export function figureOfNode(ground: MadeGround, node: number): Figure {
  if (ground.hasRole(node, 'actor')) return 'actor';
  if (ground.hasRole(node, 'useCase')) return 'ellipse';
  if (ground.hasRole(node, 'function') || ground.hasRole(node, 'step')) return 'rounded';
  if (ground.hasRole(node, 'package')) return 'package';
  return 'box';
}

/** What stands inside a node beside its name: the sorts of what lies directly in it, where they are asked for. */
const INSIDE = [
  ['values', 'value', 'values'],
  ['parts', 'part', 'parts'],
  ['ports', 'port', 'ports'],
] as const;

export function describeNode(ground: MadeGround, node: number, detail: readonly MadeDetail[], more: Partial<MadeNode> & Pick<MadeNode, 'key'>): MadeNode {
  const parts = INSIDE.flatMap(([asked, role, title]) => {
    if (!detail.includes(asked)) return [];
    const type = ground.typeOf(node);
    const within = [...ground.partsOf(node), ...(type < 0 ? [] : ground.partsOf(type))];
    const lines = within.filter((part) => ground.hasRole(part, role)).map((part) => sayPart(ground, part));
    return lines.length > 0 ? [{ title, lines }] : [];
  });
  const words = [detail.includes('reference') ? ground.referenceOf(node) : '', ground.kindLabelOf(node)].filter(Boolean);
  return {
    ...{ item: node, name: sayPart(ground, node), keyword: words.join(' · '), figure: figureOfNode(ground, node), parts, branch: -1, inside: -1 },
    ...more,
  };
}

/** A part with what it is a use of: "drive: Gate Drive". */
function sayPart(ground: MadeGround, node: number): string {
  const type = ground.typeOf(node);
  return type < 0 ? ground.titleOf(node) : `${ground.titleOf(node)}: ${ground.titleOf(type)}`;
}
