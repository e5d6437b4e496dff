import { CoombError } from '@coomb/contract';
import type { ProjectState } from '../../project-state/project-state.js';
import { requirementsPerTest, testsPerRequirement } from './distribution-figures.js';
import type { FigureFamily } from './figure-family.js';
import { gapFigures } from './gap-figures.js';
import { layerFigures } from './layer-figures.js';
import { linkFigures } from './link-figures.js';
import { realisedFigures } from './realised-figures.js';
import { resultFigures } from './result-figures.js';
import { ruleFigures } from './rule-figures.js';
import { schemeFigures } from './scheme-figures.js';
import { sourceFigures } from './source-figures.js';
import { stateFigures } from './state-figures.js';
import { untitledFigures } from './untitled-figures.js';

export const figureFamilies: readonly FigureFamily[] = [
  ruleFigures,
  stateFigures,
  resultFigures,
  linkFigures,
  testsPerRequirement,
  requirementsPerTest,
  gapFigures,
  layerFigures,
  realisedFigures,
  schemeFigures,
  sourceFigures,
  untitledFigures,
];

/** The items behind a figure. Refuses with `not-found` when there is no such figure. */
export function openFigure(
  state: ProjectState,
  id: string,
  among = figureFamilies,
): { label: string; explains: string; nodes: readonly number[]; noteOf?: FigureFamily['noteOf'] } {
  const [family, ...parameters] = id.split(':');
  const found = among.find((one) => one.id === family);
  const words = found?.describe(state, parameters);
  if (!found || !words) throw new CoombError('not-found', `There is no figure "${id}".`);
  return { ...words, nodes: found.collect(state, parameters), ...(found.noteOf && { noteOf: found.noteOf }) };
}

export function countFigure(state: ProjectState, id: string, within?: (node: number) => boolean): { id: string; label: string; count: number } {
  const { label, nodes } = openFigure(state, id);
  return { id, label, count: within ? nodes.filter(within).length : nodes.length };
}
