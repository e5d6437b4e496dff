import type { KeptRecipe, RecipeBody } from '@coomb/contract';
import { CoombError } from '@coomb/contract';
import { addToGroup, buildReadyRecipes } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import type { RecipeValue } from '../ledger/change.js';
import { ProjectStates } from '../project-state/project-states.js';
import { LedgerReader } from '../ledger/ledger-reader.js';
import { asIso, LedgerService } from '../changes/ledger.service.js';

/** Recipes kept in a project, beside the ready ones that come with Coomb. */
@Injectable()
export class RecipesService {
  constructor(
    @Inject(LedgerReader) private readonly rows: LedgerReader,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(LedgerService) private readonly ledger: LedgerService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  async list(projectId: string): Promise<KeptRecipe[]> {
    const rows = (await this.rows.findAll(projectId, 'recipe')).sort((a, b) => a.name.localeCompare(b.name, 'en'));
    const uses = await this.findUses(projectId);
    const { scheme } = await this.states.get(projectId);
    const ready = buildReadyRecipes(scheme).map(
      ({ id, name, reads, recipe }): KeptRecipe => ({
        id,
        name,
        ready: true,
        body: { reads, recipe },
        changedAt: null,
        changedBy: null,
        usedBy: uses.get(id) ?? [],
      }),
    );
    return [...rows.map((row) => describe(row, uses.get(row.id) ?? [])), ...ready];
  }

  /** Keeps a new recipe, or changes one. Ready recipes are refused: copy them under a name of your own. */
  async keep(projectId: string, person: string, wanted: { id?: string | undefined; name: string; body: RecipeBody }): Promise<KeptRecipe> {
    let row: RecipeValue | undefined;
    await this.ledger.change(projectId, async () => {
      const before = wanted.id === undefined ? null : await this.get(projectId, wanted.id);
      row = {
        id: before?.id ?? this.clock.newId(),
        projectId,
        revision: (before?.revision ?? 0) + 1,
        withdrawn: false,
        name: wanted.name,
        reads: wanted.body.reads,
        body: wanted.body,
        changedAt: this.clock.now().toISOString(),
        changedBy: person,
      };
      return { person, action: `${before ? 'Change' : 'Keep'} the recipe "${wanted.name}"`, changes: [{ entity: 'recipe', before, after: row }] };
    });
    return describe(row!, (await this.findUses(projectId)).get(row!.id) ?? []);
  }

  withdraw(projectId: string, person: string, id: string): Promise<{ seq: number; ids: string[] }> {
    return this.ledger.change(projectId, async () => {
      const before = await this.get(projectId, id);
      return {
        person,
        action: `Take away the recipe "${before.name}"`,
        changes: [{ entity: 'recipe', before, after: { ...before, withdrawn: true, revision: before.revision + 1 } }],
      };
    });
  }

  private async get(projectId: string, id: string): Promise<RecipeValue> {
    const row = (await this.rows.findRows(projectId, 'recipe', [id])).get(id);
    if (!row || row.projectId !== projectId || row.withdrawn) throw new CoombError('not-found', 'This recipe is not in the project any more.');
    return row;
  }

  private async findUses(projectId: string): Promise<Map<string, KeptRecipe['usedBy']>> {
    const rows = await this.rows.findAll(projectId, 'source');
    const uses = new Map<string, KeptRecipe['usedBy']>();
    for (const { recipeId, id, name, importedAt } of rows) if (recipeId) addToGroup(uses, recipeId, { id, name, importedAt: asIso(importedAt) });
    return uses;
  }
}

function describe(row: RecipeValue, usedBy: KeptRecipe['usedBy']): KeptRecipe {
  return { id: row.id, name: row.name, ready: false, body: row.body, changedAt: asIso(row.changedAt), changedBy: row.changedBy, usedBy };
}
