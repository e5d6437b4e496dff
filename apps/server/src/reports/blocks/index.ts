import type { ReportBody } from '@coomb/contract';
import type { ReportBlock } from './block.js';
import { byCollection } from './by-collection.js';
import { changes } from './changes.js';
import { coverage } from './coverage.js';
import { gaps } from './gaps.js';
import { summary } from './summary.js';
import { traceMatrix } from './trace-matrix.js';
import { unknownBlock } from './unknown-block.js';

/** A block whatever its data are: they are checked against its schema before it sees them. */
// biome-ignore lint/suspicious/noExplicitAny: blocks take data of forms of their own.
export type AnyBlock = ReportBlock<any>;

/** Every block of a report, in the order in which they stand. */
export const reportBlocks: readonly AnyBlock[] = [summary, byCollection, coverage, changes, gaps, traceMatrix];

export const versionOf = (block: AnyBlock): number => block.upgrades.length + 1;

/** The blocks of a stored report in their present forms. Those of a type or form that this program does not know stand as a line that says so. */
export function readBlocks(body: ReportBody, known = reportBlocks): { block: AnyBlock; data: unknown }[] {
  return body.blocks.map(({ type, version, data }) => {
    const block = known.find((one) => one.type === type);
    if (!block || version > versionOf(block)) return { block: unknownBlock(type), data };
    const parsed = block.schema.safeParse(block.upgrades.slice(version - 1).reduce((before, upgrade) => upgrade(before), data));
    return parsed.success ? { block, data: parsed.data } : { block: unknownBlock(block.title), data };
  });
}

/** What one block of a report says, in its present form; undefined where the report has none such. */
export const dataOf = <D>(body: ReportBody, block: ReportBlock<D>): D | undefined =>
  // What `readBlocks` gives for a block was checked against its schema.
  readBlocks(body).find((one) => one.block.type === block.type)?.data as D | undefined;
