import type { z } from 'zod';

/** A sort of view that people keep under a name. A further sort is a file here and a line in `saved-view-sorts.ts`. */
export interface SavedViewSort<Body extends Record<string, unknown>> {
  sort: string;
  /** What it is called: "Trace matrix". */
  label: string;
  /** Address of the view below the project; what was kept stands behind it. */
  path: string;
  /** What is kept, in its present form. */
  schema: z.ZodType<Body>;
  /** From each older form to the next; the version is one more than these are. */
  upgrades: readonly ((body: Record<string, unknown>) => Record<string, unknown>)[];
}
