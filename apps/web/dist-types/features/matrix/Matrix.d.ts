import type { OutlineReply } from '@coomb/contract';
import type { MatrixSides } from './matrix-sides';
interface Props {
    outline: OutlineReply;
    sides: MatrixSides;
    /** Link kind to make, or -1 for whatever is allowed. */
    kind: number;
    onSwap: () => void;
}
/** The matrix: headers as buttons, cells on a canvas, moved through as a spreadsheet. */
export declare function Matrix({ outline, sides, kind, onSwap }: Props): import("react/jsx-runtime").JSX.Element;
export {};
