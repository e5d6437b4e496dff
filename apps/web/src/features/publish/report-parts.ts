import type { BodyOf, createReport, OutlineReply } from '@coomb/contract';

/** What of a collection a report is about: nothing, all of it, or some of its sections; and whether its trace matrix goes in. */
export interface PartChoice {
  in: boolean;
  /** Chosen sections; none means the whole collection. */
  sections: readonly string[];
  matrix: boolean;
}

export type ReportParts = Pick<BodyOf<typeof createReport> & object, 'collections' | 'sections' | 'matrices'>;

export const wholeCollection: PartChoice = { in: true, sections: [], matrix: false };

/** The choices as a request says them: nothing is said where everything is whole, so that such reports are compared with each other. */
export function asParts(collections: readonly { id: string }[], choices: Readonly<Record<string, PartChoice>>): ReportParts {
  const chosen = collections.map(({ id }) => ({ id, ...(choices[id] ?? wholeCollection) })).filter((one) => one.in);
  const sections = chosen.flatMap((one) => one.sections);
  const matrices = chosen.filter((one) => one.matrix).map((one) => one.id);
  return {
    ...((chosen.length < collections.length || sections.length > 0) && { collections: chosen.map((one) => one.id) }),
    ...(sections.length > 0 && { sections }),
    ...(matrices.length > 0 && { matrices }),
  };
}

/** Headings at the top of a collection, and how many items each holds. */
export function topSections(outline: OutlineReply, collection: number): { id: string; title: string; items: number }[] {
  const found = new Map<number, { id: string; title: string; items: number }>();
  const top: number[] = [];
  outline.parent.forEach((parent, row) => {
    top[row] = parent < 0 ? row : top[parent]!;
    if (outline.collection[row] !== collection) return;
    if (parent < 0 && outline.heading[row] === 1) found.set(row, { id: outline.id[row]!, title: outline.title[row]!, items: 0 });
    else if (outline.heading[row] !== 1) {
      const section = found.get(top[row]!);
      if (section) section.items++;
    }
  });
  return [...found.values()];
}
