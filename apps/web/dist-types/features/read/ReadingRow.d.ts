import type { Item, OutlineReply } from '@coomb/contract';
import type { MoveWish } from './find-move';
interface Props {
    outline: OutlineReply;
    row: number;
    item: Item | undefined;
    depth: number;
    active: boolean;
    editing: boolean;
    onActivate: () => void;
    onEdit: () => void;
    onDone: () => void;
    onAdd: () => void;
    onMove: (wish: MoveWish) => void;
    onWithdraw: () => void;
}
/** One item as read: reference and state in the left margin, text in the middle, links and fields in the right margin. */
export declare function ReadingRow({ outline, row, item, depth, active, editing, ...on }: Props): import("react/jsx-runtime").JSX.Element;
export {};
