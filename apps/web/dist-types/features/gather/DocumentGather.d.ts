import type { TrayEntry } from '@coomb/contract';
interface Props {
    entry: TrayEntry;
    content: Extract<TrayEntry['content'], {
        type: 'document';
    }>;
}
/** A document as read, the recipe, and the outline it becomes, side by side and live. */
export declare function DocumentGather({ entry, content }: Props): import("react/jsx-runtime").JSX.Element;
export {};
