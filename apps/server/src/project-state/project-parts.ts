import type { NodesByReference } from './nodes-by-reference.js';
import type { OutlineOrder } from './outline-order.js';
import type { FieldFindings, LatestResult } from '@coomb/core';
import type { CollectionValue, SchemePartValue, SetValue, UsageValue, WaiverValue } from '../ledger/change.js';
import type { KeptFields } from './field-values.js';
import type { LightItem } from './light-item.js';
import type { LightLinks } from './link-table.js';

export interface TestResult extends LatestResult {
  run: string;
  at: string;
}

export interface ProjectParts {
  id: string;
  name: string;
  createdAt: string;
  /** What its scheme is made of, in no order. */
  schemeParts: SchemePartValue[];
  seq: number;
  contentSeq: number;
  life: string;
  day: string;
  collections: readonly CollectionValue[];
  sets: readonly SetValue[];
  archived: boolean;
  /** Taken out of the list of projects. */
  out: boolean;
  items: LightItem[];
  /** What another state of the same project knows of these very items already; whoever is made of it has it alone. */
  known?: { nodeOf: Map<string, number>; byReference: NodesByReference; order: OutlineOrder | undefined };
  links: LightLinks;
  waivers: WaiverValue[];
  usages: UsageValue[];
  latest: Map<string, TestResult>;
  sources: number;
  kept: KeptFields;
  /** What the fields of items leave to be desired, by item. */
  foundFields: [string, FieldFindings][];
}
