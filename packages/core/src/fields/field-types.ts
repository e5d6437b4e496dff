import type { FieldType } from './field-type.js';
import { address } from './types/address.js';
import { choice } from './types/choice.js';
import { choices } from './types/choices.js';
import { date } from './types/date.js';
import { number } from './types/number.js';
import { person } from './types/person.js';
import { rich } from './types/rich.js';
import { text } from './types/text.js';
import { yesNo } from './types/yes-no.js';

/** Every type that a field can have, in the order in which they are offered. */
export const fieldTypes = [text, rich, number, date, yesNo, choice, choices, person, address] as const satisfies readonly FieldType[];
export type FieldTypeId = (typeof fieldTypes)[number]['id'];
export const fieldTypeIds = fieldTypes.map(({ id }) => id);

const byId = new Map<string, FieldType>(fieldTypes.map((type) => [type.id, type]));

export const fieldTypeOf = (id: FieldTypeId): FieldType => byId.get(id)!;
