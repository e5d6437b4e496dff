import { CoombError, type queryRegister, type RegisterAsked, type RegisterRow, type ReplyOf } from '@coomb/contract';
import { buildRegister, type Column, columnWidth, passerOf, type Register, type RegisterGround, sayColumn, sayValue } from '@coomb/core';
import { plainText } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { ItemsRepo } from '../items/items.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import type { TableCell, TableColumn } from '../tables/write-table.js';
import { LensesService } from '../lenses/lenses.service.js';
import { RegisterGrounds } from '../lenses/register-grounds.js';

interface Wish extends RegisterAsked {
  offset: number;
  limit: number;
}

/** Registers that are kept ready of each project: windows of one are asked for one after the other. */
const MOST_KEPT = 6;
/** Rows that are read at once for a file. */
const BLOCK = 500;

/** Items as rows of columns: chosen, sorted and grouped here, shown in windows. */
@Injectable()
export class RegistersService {
  private readonly kept = new WeakMap<ProjectState, Map<string, Register>>();

  constructor(
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(RegisterGrounds) private readonly grounds: RegisterGrounds,
    @Inject(ItemsRepo) private readonly items: ItemsRepo,
    @Inject(LensesService) private readonly lenses: LensesService,
  ) {}

  async query(projectId: string, { offset, limit, ...asked }: Wish): Promise<ReplyOf<typeof queryRegister>> {
    const state = await this.states.get(projectId);
    const { what } = asked;
    const ground = await this.grounds.findFor(state, what.conditions, what.columns);
    const register = await this.build(state, ground, asked);
    return {
      ...{ seq: state.seq, total: register.total, rowCount: register.nodes.length, groups: register.groups, tallies: register.tallies, offset },
      columns: what.columns.map((column, at) => ({ id: column.id, type: register.readers[at]?.type ?? null, field: fieldOf(column) })),
      unknown: what.conditions.flatMap((condition, at) => (passerOf(ground, condition) ? [] : [at])),
      rows: await this.readRows(state, register, what.columns, offset, limit),
    };
  }

  /** Columns and rows of a file, read block by block; hidden columns are not among them. References lead to their items, below an address of the project. */
  async tableOf(projectId: string, asked: RegisterAsked, base: string): Promise<{ columns: TableColumn[]; rows: AsyncIterable<TableCell[]>; count: number }> {
    const state = await this.states.get(projectId);
    const { what } = asked;
    const register = await this.build(state, await this.grounds.findFor(state, what.conditions, what.columns), asked);
    const drawn = what.columns.flatMap((column, at) => (column.hidden ? [] : [{ column, at }]));
    const columns = drawn.map(({ column, at }): TableColumn => {
      const type = register.readers[at]?.type ?? null;
      return {
        name: sayColumn(state.scheme, column),
        type: type === 'number' || type === 'moment' ? type : 'words',
        width: columnWidth(column, type),
      };
    });
    const readRows = (offset: number) => this.readRows(state, register, what.columns, offset, BLOCK);
    async function* rows(): AsyncGenerator<TableCell[]> {
      for (let offset = 0; offset < register.nodes.length; offset += BLOCK)
        for (const { cells, isContext, item } of await readRows(offset)) {
          if (isContext) continue;
          yield drawn.map(({ column, at }, index): TableCell => {
            const value = cells[at]!;
            if (column.shown.sort === 'reference' && column.way.length === 0)
              return { text: item.reference, hyperlink: `${base}?item=${encodeURIComponent(item.reference)}` };
            if (columns[index]!.type === 'number' && typeof value === 'number') return value;
            const moment = columns[index]!.type === 'moment' && typeof value === 'string' ? new Date(value) : undefined;
            return moment && !Number.isNaN(moment.getTime()) ? moment : value === null ? null : sayValue(value);
          });
        }
    }
    return { columns, rows: rows(), count: register.total };
  }

  private async readRows(state: ProjectState, register: Register, columns: readonly Column[], offset: number, limit: number): Promise<RegisterRow[]> {
    const nodes = Array.from(register.nodes.subarray(offset, offset + limit));
    const texts = columns.some(({ way, shown }) => way.length === 0 && shown.sort === 'text') ? await this.readTexts(state, nodes) : undefined;
    return nodes.map((node, index): RegisterRow => {
      const isContext = register.isContext?.[offset + index] === 1;
      const use = register.uses?.[offset + index];
      const read = (column: Column, at: number) =>
        texts && column.shown.sort === 'text' && column.way.length === 0 ? texts.get(node)! : (register.readers[at]?.read(node, use) ?? null);
      return {
        item: state.brief(node),
        revision: state.items[node]!.revision,
        cells: columns.map((column, at) => {
          const value = read(column, at);
          return Array.isArray(value) ? [...(value as readonly string[])] : (value as string | number | boolean | null);
        }),
        depth: register.depth?.[offset + index] ?? 0,
        isContext,
        ...(use && { use: [...use.path] }),
      };
    });
  }

  private async readTexts(state: ProjectState, nodes: readonly number[]): Promise<Map<number, string | null>> {
    const rows = await this.items.findMany(
      state.id,
      nodes.map((node) => state.items[node]!.id),
    );
    return new Map(nodes.map((node) => [node, plainText(rows.get(state.items[node]!.id)?.html ?? '') || null]));
  }

  private async build(state: ProjectState, ground: RegisterGround, { what, where }: RegisterAsked): Promise<Register> {
    const seen = where.lens === undefined ? undefined : await this.lenses.seen(state, where.lens);
    // A lens is as it is kept now, whatever moment is looked at.
    const lens = where.lens === undefined ? 0 : await this.lenses.revisionOf(state, where.lens);
    const key = JSON.stringify([state.seq, state.day, what, where, lens]);
    const known = this.kept.get(state) ?? new Map<string, Register>();
    this.kept.set(state, known);
    let register = known.get(key);
    if (!register) {
      const below = where.below.map((id) => {
        const node = state.nodeOf.get(id);
        if (node === undefined) throw new CoombError('not-found', 'What the register looks below is not there any more. Choose another place.');
        return String(node);
      });
      register = buildRegister(ground, what, { collections: where.collections, below, usedIn: where.usedIn }, seen && ((node) => seen[node] === 1));
    }
    known.delete(key);
    known.set(key, register);
    for (const old of [...known.keys()].slice(0, -MOST_KEPT)) known.delete(old);
    return register;
  }
}

/** Cells of an item's own fields, of its title, and of what it is linked with directly are written where they stand. */
function fieldOf({ way, shown, as }: Column): string | null {
  if (way.length === 1 && as === 'list' && (shown.sort === 'reference' || shown.sort === 'title')) return `links:${way[0]!.end}:${way[0]!.linkKind}`;
  if (way.length > 0) return null;
  if (shown.sort === 'title') return 'title';
  return shown.sort === 'field' && shown.of !== undefined ? `field:${shown.of}` : null;
}
