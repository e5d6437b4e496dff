import type { Paper } from '@coomb/core';

/** Colours of drawings on the present theme. */
export function readPaper(colour: (token: string) => string): Paper {
  return {
    ground: colour('bg'),
    ink: colour('fg'),
    line: colour('fg.muted'),
    faint: colour('bg.emphasized'),
    fill: colour('bg.panel'),
    inside: colour('bg.subtle'),
    note: colour('ochre.muted'),
  };
}
