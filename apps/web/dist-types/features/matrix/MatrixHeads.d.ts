import type { OutlineReply } from '@coomb/contract';
import type { FoldedAxis } from '@coomb/core';
import type { MatrixSide } from './matrix-sides';
interface HeadsProps {
    outline: OutlineReply;
    side: MatrixSide;
    axis: FoldedAxis;
    totals: Int32Array;
    scroll: number;
    active: number;
    folded: ReadonlySet<string>;
    onFold: (id: string) => void;
    onOpen: (reference: string) => void;
}
/** Row names; parents fold and unfold, names open their item. */
export declare function RowHeads({ width, height, ...props }: HeadsProps & {
    width: number;
    height: number;
}): import("react/jsx-runtime").JSX.Element;
/** Column names, written upwards. */
export declare function ColumnHeads({ width, ...props }: HeadsProps & {
    width: number;
}): import("react/jsx-runtime").JSX.Element;
export {};
