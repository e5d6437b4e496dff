import type { Thread } from './bench-rows';
export declare const rowHeight = 28;
interface Props {
    threads: Thread[];
    leftRows: number[];
    rightRows: number[];
    scroll: {
        left: number;
        right: number;
    };
    height: number;
    marked: {
        left?: number;
        right?: number;
    };
    phrase: (thread: Thread) => string;
    onPick: (thread: Thread) => void;
}
/** The gutter: a thread per link; an end out of sight is a stub towards it. */
export declare function Threads({ threads, leftRows, rightRows, scroll, height, marked, phrase, onPick }: Props): import("react/jsx-runtime").JSX.Element;
export {};
