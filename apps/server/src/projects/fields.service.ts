import type { addFields, BodyOf } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { type Field, findKind, nameKey, offeredKinds, type Scheme, type SchemeBodies } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { Change, SchemePartValue } from '../ledger/change.js';
import type { ProjectState } from '../project-state/project-state.js';
import { LedgerService } from '../changes/ledger.service.js';

type Wanted = NonNullable<BodyOf<typeof addFields>>['fields'][number];
type FieldBody = SchemeBodies['field'];
/** A field that is being made: its key, and what it says. */
type NewField = { key: string; body: FieldBody; before: SchemePartValue | null };

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
    await this.ledger.change(projectId, async (state) => {
      const made: NewField[] = [];
      fields = wanted.map((one) => findField(state.scheme, one) ?? make(state, one, made));
      const parts = state.schemeNow.parts().filter((part) => part.sort === 'field');
      const rank = Math.max(0, ...parts.map((part) => part.rank));
      const changes = made.map(({ key, body, before }, index): Change => {
        if (before) return { entity: 'schemePart', before, after: { ...before, body, withdrawn: false, revision: before.revision + 1 } };
        const tracked = { id: this.clock.newId(), projectId, revision: 1, withdrawn: false };
        const place = { rank: rank + 1 + index, number: parts.length + index };
        return { entity: 'schemePart', before: null, after: { ...tracked, ...place, sort: 'field', key, body } };
      });
      const names = [...new Set(made.map(({ body }) => body.label))];
      return { person, action: names.length === 1 ? `Add the field ${names[0]}` : `Add ${names.length} fields`, changes };
    });
    return fields;
  }
}

/** Makes a field, or gives the kind one that was just made the same for another: a search or an export then finds one column. */
function make(state: ProjectState, one: Wanted, made: NewField[]): Field {
  const label = one.label.toLowerCase();
  const twins = made.filter(({ body }) => body.label.toLowerCase() === label);
  if (twins.some(({ body }) => body.kinds.includes(one.kind) && body.type !== one.type))
    throw new CoombError('input-invalid', `"${one.label}" is asked for with two types. Choose another name.`);
  const same = twins.find(({ body }) => body.kinds.includes(one.kind) || isAlike(body, one));
  if (same) {
    if (!same.body.kinds.includes(one.kind)) same.body.kinds.push(one.kind);
    return toField(same);
  }
  const parts = state.schemeNow.parts().filter((part) => part.sort === 'field');
  const body: FieldBody = {
    ...{ label: one.label, type: one.type, kinds: [one.kind], linkKinds: [] },
    ...(one.options?.length && { options: one.options }),
    ...(one.unit && { unit: one.unit }),
  };
  // One that was taken back comes back, with the values that items still have for it.
  const retired = parts.find((part) => part.withdrawn && (part.body as FieldBody).label.toLowerCase() === label && isAlike(part.body as FieldBody, one));
  const taken = [...parts, ...made].map(({ key }) => key);
  const field = { key: retired?.key ?? nameKey(one.label, taken, 'field'), body, before: retired ?? null };
  made.push(field);
  return toField(field);
}

function toField({ key, body: { kinds: _, linkKinds: __, ...body } }: NewField): Field {
  return { id: key, ...body };
}

function isAlike(field: FieldBody, wanted: Wanted): boolean {
  const facts = ({ type, options = [], unit = '' }: FieldBody | Wanted) => JSON.stringify([type, options, unit]);
  return facts(field) === facts(wanted);
}

function findField(scheme: Scheme, wanted: Wanted): Field | undefined {
  const kind = findKind(scheme, wanted.kind);
  if (!kind)
    throw new CoombError(
      'input-invalid',
      `There is no kind "${wanted.kind}"; there are ${offeredKinds(scheme)
        .map((one) => one.id)
        .join(', ')}.`,
    );
  const known = kind.fields.find((field) => field.label.toLowerCase() === wanted.label.toLowerCase());
  if (known && known.type !== wanted.type)
    throw new CoombError('input-invalid', `${kind.plural} have a field "${known.label}" already, of another type (${known.type}). Choose another name.`);
  return known;
}
