import type { addFields, BodyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { type Field, findKind, type Scheme } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change } from '../ledger/change.js';
import { LedgerService } from '../ledger/ledger.service.js';

type Wanted = NonNullable<BodyOf<typeof addFields>>['fields'][number];
type FieldChange = Extract<Change, { entity: 'field' }>;

/** Fields that people add to the kinds of their project. */
@Injectable()
export class FieldsService {
  constructor(
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** The fields asked for, in order: new ones, and those that were there already. Refuses an unknown kind, and a name that a field of another type has. */
  async add(projectId: string, person: string, wanted: readonly Wanted[]): Promise<Field[]> {
    let fields: Field[] = [];
    await this.ledger.change(projectId, async ({ scheme }) => {
      const changes: FieldChange[] = [];
      fields = wanted.map((one) => findField(scheme, one) ?? this.make(projectId, scheme, one, changes));
      const names = [...new Set(changes.map((change) => change.after.name))];
      return { person, action: names.length === 1 ? `Add the field ${names[0]}` : `Add ${names.length} fields`, changes };
    });
    return fields;
  }

  /** Makes a field, or gives the kind one that was just made the same for another: a search or an export then finds one column. */
  private make(projectId: string, scheme: Scheme, one: Wanted, changes: FieldChange[]): Field {
    const label = one.label.toLowerCase();
    const twins = changes.filter(({ after }) => after.name.toLowerCase() === label);
    if (twins.some(({ after }) => after.kinds.includes(one.kind) && after.definition.type !== one.type))
      throw new CoombError('input-invalid', `"${one.label}" is asked for with two types. Choose another name.`);
    const same = twins.find(({ after }) => after.kinds.includes(one.kind) || isAlike(after.definition, one));
    if (same) {
      if (!same.after.kinds.includes(one.kind)) same.after.kinds.push(one.kind);
      return same.after.definition;
    }
    const taken = changes.map(({ after }) => after.definition.id);
    const definition: Field = {
      id: nameField(scheme, taken, one.label),
      label: one.label,
      type: one.type,
      ...(one.options?.length && { options: one.options }),
      ...(one.unit && { unit: one.unit }),
    };
    const row = { id: this.clock.newId(), projectId, revision: 1, withdrawn: false, name: one.label, kinds: [one.kind], definition };
    changes.push({ entity: 'field', before: null, after: row });
    return definition;
  }
}

function isAlike(field: Field, wanted: Wanted): boolean {
  const facts = ({ type, options = [], unit = '' }: Field | Wanted) => JSON.stringify([type, options, unit]);
  return facts(field) === facts(wanted);
}

function findField(scheme: Scheme, wanted: Wanted): Field | undefined {
  const kind = findKind(scheme, wanted.kind);
  if (!kind) throw new CoombError('input-invalid', `There is no kind "${wanted.kind}"; there are ${scheme.kinds.map((one) => one.id).join(', ')}.`);
  const known = kind.fields.find((field) => field.label.toLowerCase() === wanted.label.toLowerCase());
  if (known && known.type !== wanted.type)
    throw new CoombError('input-invalid', `${kind.plural} have a field "${known.label}" already, of another type (${known.type}). Choose another name.`);
  return known;
}

/** An id of letters that no field of the project has. */
function nameField(scheme: Scheme, taken: readonly string[], label: string): string {
  const words = label
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .match(/[a-z0-9]+/g) ?? ['field'];
  const base = words
    .map((word, index) => (index ? word[0]!.toUpperCase() + word.slice(1) : word))
    .join('')
    .slice(0, 40);
  const used = new Set([...taken, ...scheme.kinds.flatMap((kind) => kind.fields.map((field) => field.id))]);
  for (let number = 1; ; number++) {
    const id = number === 1 && /^[a-z]/.test(base) ? base : `${base}${number}`.replace(/^(?=\d)/, 'f');
    if (!used.has(id)) return id;
  }
}
