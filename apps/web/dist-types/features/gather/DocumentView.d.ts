import type { RecipeOutcome, SourceBlock } from '@coomb/core';
interface Props {
    blocks: SourceBlock[];
    outcome: RecipeOutcome;
    shown: {
        block: number;
        row?: number | undefined;
    } | undefined;
}
/** The document as it reads, with what the recipe recognises marked in the margin. */
export declare function DocumentView({ blocks, outcome, shown }: Props): import("react/jsx-runtime").JSX.Element;
export {};
