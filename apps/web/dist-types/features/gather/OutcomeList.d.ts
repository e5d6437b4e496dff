import type { RecipeOutcome, Scheme } from '@coomb/core';
interface Props {
    scheme: Scheme;
    outcome: RecipeOutcome;
    onShow?: (place: RecipeOutcome['drafts'][number]['place']) => void;
}
/** The outline a file would become. */
export declare function OutcomeList({ scheme, outcome, onShow }: Props): import("react/jsx-runtime").JSX.Element;
export {};
