import { type CoverageItems, findKind, type Scheme } from '@coomb/core';
import type { FieldValues } from './field-values.js';
import type { LightItem } from './light-item.js';
import type { ProjectWaivers } from './project-waivers.js';

interface Whole {
  items: readonly LightItem[];
  scheme: Scheme;
  waivers: ProjectWaivers;
}

/** What rules need to know of the items. */
export function coverageItemsOf(state: Whole, fields: FieldValues): CoverageItems {
  const { items, waivers } = state;
  const waivedBy = new Map<string, Set<string>>();
  const waived = (rule: string) => {
    if (!waivedBy.has(rule)) waivedBy.set(rule, waivers.itemsWaived(rule));
    return waivedBy.get(rule)!;
  };
  return {
    count: items.length,
    kindOf: (node) => items[node]!.kind,
    isPresent: (node) => !items[node]!.withdrawn,
    isHeading: (node) => items[node]!.heading || findKind(state.scheme, items[node]!.kind)?.informative === true,
    fieldOf: (node, field) => fields.find(field, items[node]!.id),
    isWaived: (node, rule) => waived(rule).has(items[node]!.id),
  };
}
