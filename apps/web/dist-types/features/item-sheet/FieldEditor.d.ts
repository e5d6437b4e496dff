import type { Field, FieldValue } from '@coomb/core';
interface Props {
    field: Field;
    value: FieldValue | undefined;
    onChange: (value: FieldValue) => void;
}
/** An editor for one field, by its type. */
export declare function FieldEditor({ field, value, onChange }: Props): import("react/jsx-runtime").JSX.Element;
/** A field as read: words, not a form. */
export declare function FieldText({ field, value }: {
    field: Field;
    value: FieldValue | undefined;
}): import("react/jsx-runtime").JSX.Element | null;
export {};
