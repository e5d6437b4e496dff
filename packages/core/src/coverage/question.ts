import type { Scheme } from '../scheme/scheme.js';
import type { Step } from '../trace/graph.js';
import type { CoverageQuestion } from './coverage-question.js';
import type { CoverageRule, ItemFilter } from '../scheme/rule.js';

/** What a rule needs to know of each item; index = node of the trace graph. */
export interface CoverageItems {
  count: number;
  kindOf: (node: number) => string;
  /** False for withdrawn items. */
  isPresent: (node: number) => boolean;
  /** True for headings and other items that need no coverage. */
  isHeading: (node: number) => boolean;
  fieldOf: (node: number, field: string) => unknown;
  isWaived: (node: number, rule: string) => boolean;
}

/** The steps a rule walks by, with link kinds as their index in the scheme; kinds the scheme lacks are left out. */
export function buildSteps(scheme: Scheme, along: CoverageRule['along']): Step[] {
  return along
    .map(({ linkKind, direction }) => ({ kind: scheme.linkKinds.findIndex((kind) => kind.id === linkKind), direction }))
    .filter((step) => step.kind >= 0);
}

/** What a rule says of one node: in columns of a question, each a bit of its own. */
export interface NodeFlags {
  present: number;
  subject: number;
  target: number;
  waived: number;
}

/** Reads what a rule says of a node, as the items say now. */
export function buildFlagReader(rule: CoverageRule, items: CoverageItems): (node: number) => NodeFlags {
  const isSubject = buildFilter(rule.of, items);
  const isTarget = buildFilter(rule.reach, items);
  return (node) => {
    const flags: NodeFlags = { present: 0, subject: 0, target: 0, waived: 0 };
    if (!items.isPresent(node)) return flags;
    flags.present = 1;
    if (items.isHeading(node)) return flags;
    if (isSubject(node)) {
      flags.subject = 1;
      if (items.isWaived(node, rule.id)) flags.waived = 1;
    }
    if (isTarget(node)) flags.target = 1;
    return flags;
  };
}

/** Turns a rule in words into columns over the nodes of a graph. */
export function buildQuestion(
  scheme: Scheme,
  rule: CoverageRule,
  items: CoverageItems,
): CoverageQuestion & Required<Pick<CoverageQuestion, 'waived' | 'present'>> {
  const subject = new Uint8Array(items.count);
  const target = new Uint8Array(items.count);
  const waived = new Uint8Array(items.count);
  const present = new Uint8Array(items.count);
  const read = buildFlagReader(rule, items);
  for (let node = 0; node < items.count; node++) {
    const flags = read(node);
    present[node] = flags.present;
    subject[node] = flags.subject;
    target[node] = flags.target;
    waived[node] = flags.waived;
  }
  return { steps: buildSteps(scheme, rule.along), maxSteps: rule.steps, atLeast: rule.atLeast, subject, target, waived, present };
}

function buildFilter(filter: ItemFilter, items: CoverageItems): (node: number) => boolean {
  const kinds = new Set(filter.kinds);
  const { field } = filter;
  if (!field) return (node) => kinds.has(items.kindOf(node));
  return (node) => {
    if (!kinds.has(items.kindOf(node))) return false;
    const value = items.fieldOf(node, field.id);
    const values = Array.isArray(value) ? value : [value];
    return values.some((one) => field.oneOf.includes(String(one ?? '')));
  };
}
