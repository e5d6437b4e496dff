import type { Person } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { buildInitials, personColours } from '@coomb/core';
import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { type PersonRow, PersonsRepo } from './persons.repo.js';

/** Who works here. Whatever is recorded names a person by their id; the name that they go by now is put in where it is told. */
@Injectable()
export class PersonsService implements OnModuleInit {
  private readonly byId = new Map<string, PersonRow>();
  /** By each name that a person goes or went by, in small letters. */
  private readonly byName = new Map<string, PersonRow>();

  constructor(
    @Inject(PersonsRepo) private readonly repo: PersonsRepo,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async onModuleInit(): Promise<void> {
    for (const row of await this.repo.list()) this.remember(row);
  }

  list(): Person[] {
    return [...this.byId.values()].map(describe);
  }

  /** The person who goes by a name; made when there is none. */
  async getByName(name: string): Promise<string> {
    const known = this.findByName(name);
    if (known) return known;
    const row: PersonRow = {
      ...{ id: this.clock.newId(), name, names: [], initials: buildInitials(name), revision: 1, createdAt: this.clock.now().toISOString() },
      colour: personColours[this.byId.size % personColours.length]!,
    };
    // Whoever asks at the same moment gets the same person.
    this.remember(row);
    await this.repo.insert(row);
    return row.id;
  }

  findByName(name: string): string | undefined {
    const known = this.byName.get(name.toLowerCase());
    return known?.name.toLowerCase() === name.toLowerCase() ? known.id : undefined;
  }

  /** How somebody is called now: by their id, or by a name that was recorded before persons had ids. */
  nameOf(idOrName: string): string {
    return (this.byId.get(idOrName) ?? this.byName.get(idOrName.toLowerCase()))?.name ?? idOrName;
  }

  /** Another name for a person, in all that was ever recorded of them. Refuses a name that somebody else goes by. */
  async rename(id: string, name: string): Promise<Person> {
    const before = this.byId.get(id);
    if (!before) throw new CoombError('not-found', `There is no person ${id}.`);
    const other = this.findByName(name);
    if (other !== undefined && other !== id) throw new CoombError('input-invalid', `Somebody else goes by the name "${name}". Choose another.`);
    const names = before.name === name ? before.names : [...new Set([...before.names, before.name])];
    const row: PersonRow = { ...before, name, names, initials: buildInitials(name), revision: before.revision + 1 };
    await this.repo.update(row);
    this.remember(row);
    return describe(row);
  }

  private remember(row: PersonRow): void {
    this.byId.set(row.id, row);
    // Whoever goes by a name now comes before whoever once did.
    for (const name of row.names) {
      const key = name.toLowerCase();
      if (this.byName.get(key)?.name.toLowerCase() !== key) this.byName.set(key, row);
    }
    this.byName.set(row.name.toLowerCase(), row);
  }
}

function describe({ id, name, initials, colour }: PersonRow): Person {
  return { id, name, initials, colour };
}
