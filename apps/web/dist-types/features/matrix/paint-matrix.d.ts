import type { FoldedAxis, MatrixCells } from '@coomb/core';
export declare const cellSize = 22;
export interface MatrixLook {
    colour: (token: string) => string;
    rows: FoldedAxis;
    columns: FoldedAxis;
    cells: MatrixCells;
    isRowGap: (line: number) => boolean;
    isColumnGap: (line: number) => boolean;
    isHeading: (side: 'row' | 'column', line: number) => boolean;
    isSuspect: (row: number, column: number) => boolean;
    cursor: {
        row: number;
        column: number;
    };
    focused: boolean;
}
/** Paints the cells in sight: linked cells as moss squares with counts, gap lines shaded, the cursor framed. */
export declare function paintMatrix(context: CanvasRenderingContext2D, view: {
    left: number;
    top: number;
    width: number;
    height: number;
}, look: MatrixLook): void;
