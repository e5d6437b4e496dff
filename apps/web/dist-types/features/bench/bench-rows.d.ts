import type { LinkColumnsReply, OutlineReply } from '@coomb/contract';
/** One link between the two sides, by outline row. */
export interface Thread {
    id: string;
    left: number;
    right: number;
    kind: number;
    suspect: boolean;
    /** Whether the left item stands at the `from` end. */
    leftIsFrom: boolean;
}
/** Links as threads from the left rows to the right ones. */
export declare function buildThreads(outline: OutlineReply, links: LinkColumnsReply, left: number, right: number): Thread[];
/** Rows of the left side: all, or those without a thread, with the headings above them. */
export declare function narrowRows(outline: OutlineReply, rows: readonly number[], keep: (row: number) => boolean): number[];
export declare function depthIn(outline: OutlineReply, row: number): number;
