import type { findingGroups } from '@coomb/contract';
import type { Mending } from '@coomb/core';
import type { ProjectState } from '../project-state/project-state.js';
import type { FindingGround } from './finding-ground.js';

/** Something that a rule found, before anybody said anything of it. */
export interface Found {
  /** Stays the same while the finding does, over restarts too. */
  key: string;
  node: number;
  other: number;
  links: readonly number[];
  says: string;
  mendings: readonly Mending[];
  /** Of a gap that is waived under its rule: the rule. */
  waivedUnder?: string;
}

export interface FoundByRule {
  id: string;
  label: string;
  explains: string;
  group: (typeof findingGroups)[number];
  weight: 'wrong' | 'look';
  found: Found[];
}

/** Where findings come from. One more is a file here, and a line in `finding-sources.ts`. */
export interface FindingSource {
  find: (state: ProjectState, ground: FindingGround) => FoundByRule[];
}
