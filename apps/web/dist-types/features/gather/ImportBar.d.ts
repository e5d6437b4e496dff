import type { BodyOf, Collection, importFile, TrayEntry } from '@coomb/contract';
type Wish = NonNullable<BodyOf<typeof importFile>>;
interface Props {
    entry: TrayEntry;
    holds: Collection['holds'];
    proposedName: string;
    proposedPrefix: string;
    /** "123 items, 32 sections, 123 links". */
    summary: string;
    wish: Wish;
    disabled?: boolean;
}
/** Where the items go, and the import itself. */
export declare function ImportBar({ entry, holds, proposedName, proposedPrefix, summary, wish, disabled }: Props): import("react/jsx-runtime").JSX.Element;
export {};
