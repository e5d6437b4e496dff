import { boolean, integer, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { describe, expect, it } from 'vitest';
import type { Entity, WaiverValue } from './change.js';
import { HistoryValueError, type LedgerEntity, ledgerEntities, readValue, writeValue } from './entities.js';

const waiver: WaiverValue = {
  id: 'w',
  projectId: 'p',
  revision: 2,
  withdrawn: false,
  itemId: 'i',
  rule: 'tested',
  person: 'Ada',
  reason: 'Agreed',
  until: null,
  finding: null,
  approver: null,
};
const among = (entity: LedgerEntity) => ({ ...ledgerEntities, waiver: entity }) as Record<Entity, LedgerEntity>;

describe('what the history keeps', () => {
  it('comes back as the row that it was, and does not say whose it is', () => {
    const kept = writeValue(ledgerEntities.waiver, waiver);
    expect(kept).toMatchObject({ version: 2, value: { id: 'w', until: null } });
    expect(kept.value).not.toHaveProperty('projectId');
    expect(readValue('waiver', kept, 'p')).toEqual(waiver);
  });

  it('says nothing of what was added since and may be missing', () => {
    const { until: _, ...older } = waiver;
    expect(readValue('waiver', { version: 1, value: older }, 'p')).toEqual(waiver);
  });

  /** A program of later on: waivers have a weight, which may not be missing, and "reason" was renamed. */
  const later: LedgerEntity = {
    table: pgTable('waiver', {
      id: uuid('id').primaryKey(),
      revision: integer('revision').notNull(),
      withdrawn: boolean('withdrawn').notNull(),
      grounds: text('grounds').notNull(),
      weight: integer('weight').notNull(),
    }),
    keys: ['id', 'revision', 'withdrawn', 'grounds', 'weight'],
    upgrades: [({ reason, ...value }) => ({ ...value, grounds: reason }), (value) => ({ ...value, weight: 1 })],
  };

  it('is brought from every older form to the present one, step by step', () => {
    const read = (version: number, value: Record<string, unknown>) => readValue('waiver', { version, value }, 'p', [], among(later));
    const expected = { id: 'w', projectId: 'p', revision: 2, withdrawn: false, grounds: 'Agreed', weight: 1 };
    expect(read(1, { ...waiver })).toEqual(expected);
    expect(read(2, { ...waiver, grounds: 'Agreed' })).toEqual(expected);
    expect(read(3, { ...waiver, grounds: 'Agreed', weight: 1 })).toEqual(expected);
    expect(writeValue(later, { ...waiver, grounds: 'Agreed', weight: 1 }).version).toBe(3);
  });

  it('that makes no row of today says which thing, which form and which key', () => {
    const withoutStep = among({ ...later, upgrades: later.upgrades.slice(0, 1) });
    expect(() => readValue('waiver', { version: 1, value: { ...waiver } }, 'p', [], withoutStep)).toThrow(
      new HistoryValueError('The history holds a waiver in form 1 that says no weight.'),
    );
    expect(() => readValue('waiver', { version: 3, value: {} }, 'p')).toThrow('a waiver in form 3, and this program knows forms 1 to 2');
  });
});
