import type { OutlineReply } from '@coomb/contract';
interface Props {
    side: 'left' | 'right';
    label: string;
    outline: OutlineReply;
    rows: number[];
    marked: number | undefined;
    focused: boolean;
    /** Rows linked with what is marked on the other side. */
    partner: number[];
    reasons?: Map<number, string>;
    fits: (row: number) => boolean;
    onMark: (row: number) => void;
    onScroll: (top: number) => void;
}
/** One outline of the bench. */
export declare function BenchSide({ side, label, outline, rows, marked, focused, partner, reasons, fits, onMark, onScroll }: Props): import("react/jsx-runtime").JSX.Element;
export {};
