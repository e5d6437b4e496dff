import type { Item } from '@coomb/contract';
import { type Kind } from '@coomb/core';
interface Props {
    project: string;
    item: Pick<Item, 'id' | 'title' | 'html' | 'fields' | 'revision' | 'heading' | 'reference'>;
    kind: Kind;
    withFields?: boolean;
    onDone: () => void;
}
/** Edits title, text and fields in place. Ctrl Enter saves, Esc leaves; a clash with somebody else keeps what was typed. */
export declare function ItemEditor({ project, item, kind, withFields, onDone }: Props): import("react/jsx-runtime").JSX.Element;
export {};
