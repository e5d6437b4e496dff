import type { LinkColumnsReply, OutlineReply } from '@coomb/contract';
/** One side of the matrix: outline rows in order, each with the index of its parent on this side. */
export interface MatrixSide {
    rows: Int32Array;
    parent: Int32Array;
    /** Links at each item of the side, before any narrowing. */
    linked: Int32Array;
}
export interface MatrixSides {
    row: MatrixSide;
    column: MatrixSide;
    links: {
        row: Int32Array;
        column: Int32Array;
    };
    /** Links by the pair of outline rows, for editing a cell. */
    byPair: Map<string, {
        id: string;
        kind: number;
        suspect: boolean;
    }[]>;
    shown: number;
}
/** Puts links onto the two sides; `show` narrows a side to its gaps with their headings. */
export declare function buildMatrixSides(outline: OutlineReply, links: LinkColumnsReply, rowCollection: number, columnCollection: number, kind: number, show: 'all' | 'rowGaps' | 'columnGaps'): MatrixSides;
