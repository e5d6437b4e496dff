import type { TrayEntry } from '@coomb/contract';
interface Props {
    entry: TrayEntry;
    content: Extract<TrayEntry['content'], {
        type: 'model';
    }>;
}
/** A model file: its elements as an outline, counted by kind; what is unknown is named. */
export declare function ModelGather({ entry, content }: Props): import("react/jsx-runtime").JSX.Element;
export {};
