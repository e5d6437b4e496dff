import { CoombError } from '@coomb/contract';
import { type Binding, type Field, fieldTypeOf, IdIndex, parseIdWords, type Scheme, toIdWords } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import type { Database } from '../database/database.js';
import * as schema from '../database/schema.js';
import { DATABASE, LIFE } from '../http/tokens.js';
import { buildScheme, ruleFieldsOf } from './scheme-parts.js';
import { type DoubtfulFields, FoundFields } from './found-fields.js';
import type { LightLinks } from './link-table.js';
import type { ProjectParts, TestResult } from './project-parts.js';
import type { LightItem } from './light-item.js';
import { asideEntities } from '../ledger/entities.js';

const [COMMA, ZERO] = [44, 48];
const UNBOUND: Binding[] = [];
const plainColumns = ['id', 'collection_id', 'kind', 'heading', 'parent_id', 'rank', 'withdrawn', 'meaning_seq', 'revision', 'node', 'bindings'];
const textColumns = ['reference', 'title'];
const parts = "E'\\x1f\\x1e'";

/** Loads a whole project in a few packed queries: columns joined into one text each are far cheaper than rows. */
@Injectable()
export class ProjectStateRepo {
  constructor(
    @Inject(DATABASE) private readonly db: Database,
    @Inject(LIFE) private readonly life: string,
  ) {}

  async load(id: string): Promise<Omit<ProjectParts, 'day'>> {
    const [project] = await this.db.select().from(schema.projects).where(eq(schema.projects.id, id));
    if (!project) throw new CoombError('not-found', `There is no project ${id}.`);
    const items = await this.loadItems(id);
    const schemeParts = await this.db.select().from(schema.schemeParts).where(eq(schema.schemeParts.projectId, id));
    const scheme = buildScheme(schemeParts);
    const kinds = new Map(scheme.linkKinds.map((kind, index) => [kind.id, index]));
    return {
      id,
      name: project.name,
      createdAt: new Date(project.createdAt).toISOString(),
      schemeParts,
      seq: project.seq,
      life: this.life,
      contentSeq: await this.findContentSeq(id),
      archived: project.archived,
      out: project.withdrawn,
      sets: await this.db.select().from(schema.sets).where(eq(schema.sets.projectId, id)),
      collections: await this.db.select().from(schema.collections).where(eq(schema.collections.projectId, id)),
      items,
      links: await this.loadLinks(id, items, kinds),
      waivers: await this.db.select().from(schema.waivers).where(eq(schema.waivers.projectId, id)),
      usages: await this.db.select().from(schema.usages).where(eq(schema.usages.projectId, id)),
      latest: await this.loadLatest(id),
      sources: await this.countSources(id),
      foundFields: findIn(scheme, await this.loadDoubtful(id, scheme)),
      kept: { ruleFields: await this.loadFields(id, ruleFieldsOf(scheme)), numbers: await this.loadNumbers(id) },
    };
  }

  private async findContentSeq(id: string): Promise<number> {
    const [row] = await this.columns<{ seq: number }>(
      sql`select seq from history where project_id = ${id} and entity <> all(${`{${asideEntities.join(',')}}`}::text[]) order by seq desc limit 1`,
    );
    return row?.seq ?? 0;
  }

  private async loadNumbers(id: string): Promise<Map<string, Map<string, string>>> {
    const fields = await this.columns<{ field: string }>(
      sql`select distinct recipe ->> 'numberField' as field from source where project_id = ${id} and recipe ->> 'numberField' is not null`,
    );
    const numbers = new Map<string, Map<string, string>>();
    for (const { field } of fields) {
      const rows = await this.columns<{ id: string; value: string }>(
        sql`select id, fields ->> ${field}::text as value from item where project_id = ${id} and fields ? ${field}::text`,
      );
      numbers.set(field, new Map(rows.map((row) => [row.id, row.value])));
    }
    return numbers;
  }

  /** Values of fields by item, as they are now. */
  async loadFields(id: string, fields: readonly string[]): Promise<Map<string, Map<string, unknown>>> {
    const values = new Map<string, Map<string, unknown>>();
    for (const field of fields) {
      const rows = await this.columns<{ id: string; value: unknown }>(
        sql`select id, fields -> ${field}::text as value from item where project_id = ${id} and fields ? ${field}::text`,
      );
      values.set(field, new Map(rows.map((row) => [row.id, row.value])));
    }
    return values;
  }

  /**
   * Items whose fields may not be as the scheme says: without a required value, or with one that is no choice or of another type. The database
   * picks them out, for they are few; what they leave to be desired is for core to say.
   */
  async loadDoubtful(id: string, scheme: Scheme): Promise<DoubtfulFields[]> {
    const doubts = scheme.kinds.flatMap(({ id: kind, fields }) => {
      const own = fields.flatMap((field) => doubt(field));
      return own.length > 0 ? [sql`kind = ${kind} and (${sql.join(own, sql` or `)})`] : [];
    });
    if (doubts.length === 0) return [];
    return this.columns<DoubtfulFields>(sql`
      select id, kind, fields from item where project_id = ${id} and not heading and (${sql.join(doubts, sql` or `)})`);
  }

  /** One text for all: values parted by the unit separator, items by the record separator, neither of which a value may hold. */
  private async loadItems(id: string): Promise<LightItem[]> {
    const columns = [
      ...plainColumns.map((column) => `coalesce(${column}::text, '')`),
      ...textColumns.map((column) => `translate(coalesce(${column}, ''), ${parts}, '  ')`),
    ];
    const [row] = await this.columns<{ joined: string | null }>(sql`
      select string_agg(concat_ws(E'\x1f', ${sql.raw(columns.join(', '))}), E'\x1e') as joined
      from (select * from item where project_id = ${id} order by node) one`);
    if (!row?.joined) return [];
    return row.joined.split('\x1e').map((joined) => {
      const [itemId, collectionId, kind, heading, parentId, rank, withdrawn, meaningSeq, revision, node, bindings, reference, title] = joined.split(
        '\x1f',
      ) as string[];
      return {
        id: itemId!,
        collectionId: collectionId!,
        kind: kind!,
        reference: reference!,
        title: title!,
        heading: heading === 'true',
        parentId: parentId || null,
        rank: Number(rank),
        withdrawn: withdrawn === 'true',
        meaningSeq: Number(meaningSeq),
        revision: Number(revision),
        bindings: bindings === '[]' ? UNBOUND : (JSON.parse(bindings!) as Binding[]),
        node: Number(node),
      };
    });
  }

  /** Ids come as bytes, sixteen each: a third of their text, and found by it all the same. */
  async loadLinks(id: string, items: readonly { id: string }[], kinds: Map<string, number>): Promise<LightLinks> {
    const [columns] = await this.columns<Record<'id' | 'from' | 'to' | 'kind' | 'fromSeq' | 'toSeq', string | null>>(sql`
      select encode(string_agg(uuid_send(id), ''), 'base64') as id, encode(string_agg(uuid_send(from_id), ''), 'base64') as "from",
        encode(string_agg(uuid_send(to_id), ''), 'base64') as "to",
        string_agg(kind, ',') as kind,
        string_agg(from_seq::text, ',') as "fromSeq", string_agg(to_seq::text, ',') as "toSeq"
      from link where project_id = ${id} and not withdrawn`);
    const index = new IdIndex(parseIdWords(items.map((item) => item.id)));
    const nodes = (text: string | null | undefined) => {
      const words = toIdWords(Buffer.from(text ?? '', 'base64'));
      const found = new Uint32Array(words.length / 4);
      for (let i = 0; i < found.length; i++) found[i] = index.find(words, i * 4);
      return found;
    };
    const inUsage = await this.columns<{ id: string; from: string | null; to: string | null }>(sql`
      select id, from_usage as "from", to_usage as "to" from link where project_id = ${id} and not withdrawn and (from_usage is not null or to_usage is not null)`);
    return {
      inUsage: new Map(inUsage.map(({ id: link, from, to }) => [link, { from, to }])),
      id: Buffer.from(columns?.id ?? '', 'base64'),
      from: nodes(columns?.from),
      to: nodes(columns?.to),
      kind: readKinds(columns?.kind ?? '', kinds),
      fromSeq: readNumbers(columns?.fromSeq ?? ''),
      toSeq: readNumbers(columns?.toSeq ?? ''),
    };
  }

  /** Latest result of each test case in the runs that are not withdrawn, or in the given ones. */
  async loadLatest(id: string, runs?: readonly string[]): Promise<Map<string, TestResult>> {
    const rows = await this.columns<{ test: string; outcome: TestResult['outcome']; seq: number; run: string; at: string }>(sql`
      select distinct on (result.test_id) result.test_id as test, result.outcome, run.seq, run.name as run, run.at
      from result join run on run.id = result.run_id
      where run.project_id = ${id} and ${runs ? sql`run.id = any(${`{${runs.join(',')}}`}::uuid[])` : sql`not run.withdrawn`} and result.test_id is not null
      order by result.test_id, run.at desc, run.seq desc, result.ordinal desc`);
    return new Map(rows.map(({ test, outcome, seq, run, at }) => [test, { outcome, seq, run, at: new Date(at).toISOString() }]));
  }

  private async countSources(id: string): Promise<number> {
    const [row] = await this.columns<{ count: number }>(sql`select count(*)::int as count from source where project_id = ${id} and not withdrawn`);
    return row?.count ?? 0;
  }

  private async columns<T>(query: ReturnType<typeof sql>): Promise<T[]> {
    const { rows } = await this.db.execute(query);
    return rows as T[];
  }
}

/** When a value of a field may not fit, or is required and missing; rather too often than too rarely. */
function doubt({ id, type, options, required }: Field): ReturnType<typeof sql>[] {
  const value = sql`fields -> ${id}::text`;
  const { json, has, unfit } = fieldTypeOf(type);
  const doubts = [sql`jsonb_typeof(${value}) not in (${json}, 'null')`];
  if (required) doubts.push(sql`coalesce(${value}, 'null') in ('null', '""', '[]')`);
  if (options?.length && has === 'options') doubts.push(sql`not (${value} <@ ${JSON.stringify(options)}::jsonb)`);
  if (unfit && 'unless' in unfit) doubts.push(sql`fields ->> ${id}::text !~* ${unfit.unless}`);
  if (unfit && 'matches' in unfit) doubts.push(sql`fields ->> ${id}::text ~* ${unfit.matches}`);
  return doubts;
}

function findIn(scheme: Scheme, doubtful: readonly DoubtfulFields[]): ProjectParts['foundFields'] {
  const found = new FoundFields();
  found.learn(scheme, doubtful);
  return found.snapshot();
}

/** Link kinds parted by commas, as their indexes; 255 for a kind that the project has no more. Links of one kind mostly stand together. */
function readKinds(text: string, kinds: ReadonlyMap<string, number>): Uint8Array {
  const read: number[] = [];
  let last = '';
  let index = 255;
  for (let start = 0; start < text.length; ) {
    if (last === '' || !text.startsWith(last, start) || (text.charCodeAt(start + last.length) !== COMMA && start + last.length < text.length)) {
      const end = text.indexOf(',', start);
      last = text.slice(start, end < 0 ? text.length : end);
      index = kinds.get(last) ?? 255;
    }
    read.push(index);
    start += last.length + 1;
  }
  return Uint8Array.from(read);
}

/** Whole numbers parted by commas, without a text for each. */
function readNumbers(text: string): Uint32Array {
  if (text === '') return new Uint32Array(0);
  let count = 1;
  for (let i = 0; i < text.length; i++) if (text.charCodeAt(i) === COMMA) count++;
  const numbers = new Uint32Array(count);
  let at = 0;
  let value = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === COMMA) {
      numbers[at++] = value;
      value = 0;
    } else value = value * 10 + code - ZERO;
  }
  numbers[at] = value;
  return numbers;
}
