/** What may speak for a link between two items, in the order of its row. */
export const FEATURES = [
  'words',
  'titleSaid',
  'titleEchoed',
  'context',
  'alike',
  'often',
  'reverse',
  'beside',
  'besideKnown',
  'near',
  'inside',
  'common',
] as const;
export type Feature = (typeof FEATURES)[number];
export const AT = Object.fromEntries(FEATURES.map((name, index) => [name, index])) as Record<Feature, number>;

/**
 * How much each counts where nothing was learnt yet, and the constant: what was learnt on cross-references of published standards, none of which ships
 * with this.
 */
export const PRIOR = [1.4, 1.1, 0.5, 3.4, 1.6, 0.9, 1.5, 0.8, 0.9, 0.7, 0.5, 0.8, -5.2];
