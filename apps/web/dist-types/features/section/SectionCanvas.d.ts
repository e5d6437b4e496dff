import type { OutlineReply } from '@coomb/contract';
interface Props {
    outline: OutlineReply;
    layers: {
        label: string;
        plural: string;
        rows: number[];
    }[];
    seams: [number, number][];
    hovered: number | undefined;
    traced: Map<number, number> | undefined;
    brushed: ReadonlySet<number> | undefined;
    onHover: (row: number | undefined) => void;
    onBrush: (rows: ReadonlySet<number> | undefined) => void;
    onOpen: (row: number) => void;
}
/** The section itself: a canvas that is hovered, brushed and walked by arrow keys. */
export declare function SectionCanvas({ outline, layers, seams, hovered, traced, brushed, onHover, onBrush, onOpen }: Props): import("react/jsx-runtime").JSX.Element;
export {};
