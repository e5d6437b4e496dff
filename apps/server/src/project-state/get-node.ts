import { CoombError } from '@coomb/contract';
import type { ProjectState } from './project-state.js';

export function getNode(state: ProjectState, idOrReference: string): number {
  const node = state.nodeOf.get(idOrReference) ?? state.byReference.get(idOrReference.toLowerCase());
  if (node === undefined) throw new CoombError('not-found', `There is no item "${idOrReference}" in ${state.name}.`);
  return node;
}
