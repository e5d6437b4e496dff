import type { ReportBody } from '@coomb/contract';

/** A report as it was stored before reports consisted of blocks. */
interface WholeReport extends Omit<ReportBody, 'blocks'> {
  readiness: { states: unknown; results: unknown; rules: unknown; collections: unknown };
  gaps: unknown;
  matrix: { rows: unknown[] };
  since: unknown;
  moved: unknown;
  changed: unknown;
}

/** A stored report as blocks, whatever it was stored as. What it says stays what it said. */
export function readStored(stored: unknown): ReportBody {
  const body = stored as ReportBody | WholeReport;
  if ('blocks' in body) return { ...body, parts: body.parts ?? null };
  const { readiness, gaps, matrix, since, moved, changed, ...about } = body;
  const { states, results, rules, collections } = readiness;
  const blocks = [
    { type: 'summary', version: 1, data: { states, results } },
    { type: 'byCollection', version: 1, data: { collections } },
    { type: 'coverage', version: 1, data: { rules } },
    ...(since ? [{ type: 'changes', version: 1, data: { since, moved, changed } }] : []),
    { type: 'gaps', version: 1, data: { gaps } },
    ...(matrix.rows.length > 0 ? [{ type: 'traceMatrix', version: 1, data: matrix }] : []),
  ];
  return { ...about, parts: about.parts ?? null, blocks };
}
