import type { FieldValue } from './field-value.js';

/** What a type needs to know of the field that is of it. */
export interface FieldShape {
  options?: readonly string[] | undefined;
  unit?: string | undefined;
}

export interface Reading {
  value: FieldValue;
  /** What could not be read, or only by a guess, in words that name the text. */
  problem?: string;
}

/**
 * One sort of values that fields hold. A further type is a file under `types` and a line in `field-types.ts`: fields can have it in the
 * scheme, values of it are checked, found when they do not fit, read from files, shown, edited and exported.
 */
export interface FieldType {
  id: string;
  /** What it is called where a field is made: "yes or no". */
  label: string;
  /** What it takes, as a refusal says it: "a day such as 2026-11-27". */
  takes: string;
  /** What the value is in JSON. */
  json: 'string' | 'number' | 'boolean' | 'array';
  /** Whether values are some of the field's options, or numbers of its unit. */
  has?: 'options' | 'unit';
  /** Text with markup: it is cleaned where it comes in, and shown as it reads. */
  rich?: true;
  /** Whether a value that is not empty is of this type. */
  fits: (value: FieldValue) => boolean;
  /** Texts among those of the JSON type that do not fit, as a regular expression that PostgreSQL and JavaScript read alike; letters of either case. */
  unfit?: { matches: string } | { unless: string };
  /** Reads a text of a file or a person, never an empty one. */
  read: (text: string, field: FieldShape) => Reading;
  /** The value as words, in a cell or a line. */
  write: (value: FieldValue) => string;
  /** How ReqIF keeps it. */
  exchange: 'text' | 'rich' | 'number' | 'date' | 'yesNo' | 'choice';
  /** What it is edited by. */
  editor: 'line' | 'lines' | 'rich' | 'number' | 'day' | 'yesNo' | 'one' | 'several';
}

export const isText = (value: FieldValue): value is string => typeof value === 'string';
export const writeText = (value: FieldValue): string => (value === null ? '' : Array.isArray(value) ? value.join(', ') : String(value));

/** The option that a text names, in whatever case. */
export const findOption = (options: readonly string[] | undefined, text: string): string | undefined =>
  options?.find((option) => option.toLowerCase() === text.toLowerCase());
