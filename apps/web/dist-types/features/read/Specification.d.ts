import type { Collection, OutlineReply } from '@coomb/contract';
/** The running text of a collection: one row per item, edited in place, walked by keyboard. */
export declare function Specification({ collection, outline, rows }: {
    collection: Collection;
    outline: OutlineReply;
    rows: number[];
}): import("react/jsx-runtime").JSX.Element;
