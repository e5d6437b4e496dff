import type { Meaning, Scheme } from '@coomb/core';
/** What a column or label is taken for: part of the item, a field of its kind, its parent, or a link. */
export declare function MeaningChoice({ scheme, kind, name, meaning, onChange }: {
    scheme: Scheme;
    kind: string;
    name: string;
    meaning: Meaning;
    onChange: (meaning: Meaning) => void;
}): import("react/jsx-runtime").JSX.Element;
