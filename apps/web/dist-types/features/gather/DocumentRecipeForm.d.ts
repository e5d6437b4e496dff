import type { DocumentRecipe, Scheme, SourceBlock } from '@coomb/core';
interface Props {
    scheme: Scheme;
    recipe: DocumentRecipe;
    blocks: SourceBlock[];
    problem: string | undefined;
    onChange: (recipe: DocumentRecipe) => void;
}
/** The recipe in plain sentences; a change shows at once in the outline. */
export declare function DocumentRecipeForm({ scheme, recipe, blocks, problem, onChange }: Props): import("react/jsx-runtime").JSX.Element;
export {};
