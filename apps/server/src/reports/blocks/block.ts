import type { Readiness, ReportBody } from '@coomb/contract';
import type { Coat } from '@coomb/core';
import type { z } from 'zod';
import type { Change } from '../../ledger/change.js';
import type { ProjectState } from '../../project-state/project-state.js';
import type { Cell, DocumentPart } from '../document-parts.js';
import type { PageLinks } from '../page-links.js';
import type { ReportScope } from '../report-scope.js';

/** What a block is written from. */
export interface ReportScene {
  state: ProjectState;
  scope: ReportScope;
  readiness: Readiness;
  /** The last report about the same parts, as it reads today, and what changed since. */
  last: { number: number; at: string; dataOf: <D>(block: ReportBlock<D>) => D | undefined } | undefined;
  touched: readonly Change[];
}

/** What the parts of a document are written on. */
export interface Sheet {
  body: ReportBody;
  /** A reference as the colour key that the report was published with has it. */
  item: (reference: string) => Cell;
  coatOf: (reference: string) => Coat | undefined;
}

/**
 * One part of a report. What it says is stored with its type and version and stays as it was written: whoever gives it another form raises
 * the version and adds a step to `upgrades`. A further block is a file here and a line in `index.ts`.
 */
export interface ReportBlock<D> {
  type: string;
  title: string;
  /** The present form of what it says. */
  schema: z.ZodType<D>;
  /** From each older form to the next; the version is one more than these are. */
  upgrades: readonly ((data: unknown) => unknown)[];
  /** What it says now; undefined where the report has no such part. */
  build: (scene: ReportScene) => D | undefined;
  /** Whether it says nothing and is left out. */
  isEmpty?: (data: D) => boolean;
  /** Whether it begins a page in a document. */
  ownPage?: true;
  /** As a section of the web page. Every word of the data is escaped. */
  page: (data: D, on: PageLinks & { body: ReportBody }) => string;
  /** As parts of the document, below the heading. */
  document: (data: D, sheet: Sheet) => DocumentPart[];
}
