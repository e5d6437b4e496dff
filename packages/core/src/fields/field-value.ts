/** What a field holds: text, a number, yes or no, a list of texts, or nothing. */
export type FieldValue = string | number | boolean | string[] | null;
