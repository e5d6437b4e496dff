import type { MadeSort } from '../made-graph.js';
import { compositionSort } from './composition.js';
import { contextSort } from './context.js';
import { flowSort } from './flow.js';
import { hierarchySort } from './hierarchy.js';
import type { MadeSortOf } from './made-sort.js';
import { overviewSort } from './overview.js';
import { useCasesSort } from './use-cases.js';

/** Sorts of drawings that are made here; a further one is a file and a line. A trace is made of its own search. */
export const madeSortsOf: readonly MadeSortOf[] = [compositionSort, hierarchySort, contextSort, useCasesSort, flowSort, overviewSort];

export const findMadeSort = (sort: MadeSort): MadeSortOf | undefined => madeSortsOf.find((one) => one.sort === sort);
