import { escapeHtml } from '@coomb/core';
import { Paragraph } from 'docx';
import { z } from 'zod';
import type { ReportBlock } from './block.js';

const SAYS = 'This part was written by another version of Coomb, in a form that this one does not read. It is kept as it was stored.';

/** Stands for a block that this program cannot read, so that the rest of the report can be. */
export const unknownBlock = (title: string): ReportBlock<unknown> => ({
  type: 'unknown',
  title,
  schema: z.unknown(),
  upgrades: [],
  build: () => undefined,
  page: () => `<p>${escapeHtml(SAYS)}</p>`,
  document: () => [new Paragraph(SAYS)],
});
