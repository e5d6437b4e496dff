import type { ReportBody } from '@coomb/contract';
import { escapeHtml } from '@coomb/core';

/** How a page leads to the live project. */
export interface PageLinks {
  /** A reference, leading to its item. */
  item: (reference: string) => string;
  /** A number, leading to what it counts: where a report is about parts, only if one collection is the part; else the live figure would count others too. */
  figure: (id: string, count: number) => string;
}

/** `base` is the whole address of the live project. */
export function linksTo({ parts }: ReportBody, base: string): PageLinks {
  return {
    item: (reference) => `<a href="${base}?item=${encodeURIComponent(reference)}">${escapeHtml(reference)}</a>`,
    figure: (id, count) => {
      if (parts && (parts.collections.length !== 1 || parts.sections.length > 0)) return String(count);
      const query = parts ? `?collection=${parts.collections[0]!.id}` : '';
      return `<a href="${base}/check/figure/${encodeURIComponent(id)}${query}">${count}</a>`;
    },
  };
}
