import { Inject, Injectable } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE } from '../http/tokens.js';

export type PersonRow = typeof schema.persons.$inferSelect;

@Injectable()
export class PersonsRepo {
  constructor(@Inject(DATABASE) private readonly db: Database) {}

  /** In the order in which they came. */
  list(): Promise<PersonRow[]> {
    return this.db.select().from(schema.persons).orderBy(schema.persons.createdAt, schema.persons.id);
  }

  async insert(row: PersonRow): Promise<void> {
    await this.db.insert(schema.persons).values(row);
  }

  async update(row: PersonRow): Promise<void> {
    await this.db.update(schema.persons).set(row).where(eq(schema.persons.id, row.id));
  }
}
