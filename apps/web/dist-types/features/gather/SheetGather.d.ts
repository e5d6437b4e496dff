import type { TrayEntry } from '@coomb/contract';
interface Props {
    entry: TrayEntry;
    content: Extract<TrayEntry['content'], {
        type: 'sheets';
    }>;
}
/** A workbook or separated values: columns with their meaning, and the items they become. */
export declare function SheetGather({ entry, content }: Props): import("react/jsx-runtime").JSX.Element;
export {};
