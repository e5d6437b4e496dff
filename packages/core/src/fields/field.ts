import type { FieldRole } from './field-roles.js';
import type { FieldTypeId } from './field-types.js';
import type { FieldValue } from './field-value.js';

/** A field of a kind. `options` belongs to types that have options, `unit` to those that have a unit. */
export interface Field {
  id: string;
  label: string;
  type: FieldTypeId;
  options?: string[];
  unit?: string;
  /** A change of this field changes what the item means, and makes its links suspect. */
  meaning?: boolean;
  /** Items without a value are findings. */
  required?: boolean;
  /** Value of items that are made by hand. */
  default?: FieldValue;
  role?: FieldRole;
}
