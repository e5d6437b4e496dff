import { CoombError } from '@coomb/contract';
import type { ProjectContents } from '../project-state/project-contents.js';

/** Refuses the name of a set that is there. */
export function assertFree(contents: ProjectContents, name: string): void {
  if (contents.liveSets().some((set) => set.name.toLowerCase() === name.toLowerCase()))
    throw new CoombError('input-invalid', `There is a set "${name}" already. Choose another name.`);
}
