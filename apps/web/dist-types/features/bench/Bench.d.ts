import type { OutlineReply } from '@coomb/contract';
interface Props {
    outline: OutlineReply;
    left: string;
    right: string;
    onlyUnlinked: boolean;
    likely: boolean;
}
/** Two outlines with threads between. By mouse: drag. By keyboard: arrows, Enter, Delete. */
export declare function Bench({ outline, left, right, onlyUnlinked, likely }: Props): import("react/jsx-runtime").JSX.Element;
export {};
