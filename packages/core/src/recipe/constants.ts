import { fieldTypeOf } from '../fields/field-types.js';
import type { FieldValue } from '../fields/field-value.js';
import { findKind, type Scheme } from '../scheme/scheme.js';
import type { Issue } from '../source/issue.js';
import { escapeHtml } from './document-words.js';
import type { Draft } from './draft.js';
import { readFieldValue } from '../fields/read-field.js';

/** Field values that a recipe gives to every item, because the file does not say them. Each is read once for a kind, and complained of once. */
export class Constants {
  readonly issues: Issue[] = [];
  private readonly byKind = new Map<string, Record<string, FieldValue>>();

  constructor(
    private readonly scheme: Scheme,
    private readonly wanted: Readonly<Record<string, string>> = {},
  ) {}

  /** What the file itself says of an item holds. */
  giveTo(draft: Draft): void {
    if (draft.role === 'item') draft.fields = { ...this.of(draft.kind), ...draft.fields };
  }

  private of(kind: string): Record<string, FieldValue> {
    let values = this.byKind.get(kind);
    if (!values) this.byKind.set(kind, (values = this.read(kind)));
    return values;
  }

  private read(kind: string): Record<string, FieldValue> {
    const values: Record<string, FieldValue> = {};
    const complain = (code: string, message: string) => this.issues.push({ severity: 'warning', code, at: 'the recipe', message });
    for (const [id, text] of Object.entries(this.wanted)) {
      const field = findKind(this.scheme, kind)?.fields.find((one) => one.id === id);
      if (!field) {
        complain('field-unknown', `Every item is to have a field "${id}" that the kind ${kind} does not have; it was left out`);
        continue;
      }
      const { value, problem } = readFieldValue(field, text);
      if (problem) complain('field-value', `${field.label} of every item: ${problem}`);
      if (value !== null) values[id] = fieldTypeOf(field.type).rich ? `<p>${escapeHtml(String(value))}</p>` : value;
    }
    return values;
  }
}
