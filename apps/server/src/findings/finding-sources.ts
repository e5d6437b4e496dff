import { coverageFindings } from './coverage-findings.js';
import { evidenceFindings } from './evidence-findings.js';
import type { FindingSource } from './finding-source.js';
import { linkFindings } from './link-findings.js';
import { textFindings } from './text-findings.js';

/** In the order in which findings are listed. */
export const findingSources: readonly FindingSource[] = [coverageFindings, evidenceFindings, linkFindings, textFindings];
