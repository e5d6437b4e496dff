import { clipPassage, keepSource, listSources, type RecipeBody, readSource, removeClipping } from '@coomb/contract';
import { contentTypeOwning } from '@coomb/core';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { asIso } from '../changes/ledger.service.js';
import { GatherRepo } from '../gather/gather.repo.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';
import { ClipService } from './clip.service.js';
import { SourcesService } from './sources.service.js';

@Controller()
export class SourcesController {
  constructor(
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(ClipService) private readonly clips: ClipService,
    @Inject(GatherRepo) private readonly repo: GatherRepo,
    @Inject(ProjectStates) private readonly states: ProjectStates,
  ) {}

  @Route(listSources)
  async listSources(@Call(listSources) { params }: Input<typeof listSources>) {
    const rows = await this.repo.listSources(params.project);
    const items = countBySource(await this.states.get(params.project));
    return rows.map(({ id, name, format, size, importedAt, importedBy, issues, lineageId, collectionId, recipe, recipeId }) => ({
      id,
      name,
      format,
      size,
      importedAt: asIso(importedAt),
      importedBy,
      items: items.get(lineageId ?? id) ?? 0,
      issues,
      lineage: lineageId ?? id,
      collection: collectionId,
      recipe: bodyOf(recipe),
      recipeId,
    }));
  }

  @Route(readSource)
  read(@Call(readSource) { params, query }: Input<typeof readSource>) {
    return this.sources.read(params.project, params.source, query.as);
  }

  @Route(clipPassage)
  clip(@Call(clipPassage) { params, body, person }: Input<typeof clipPassage>) {
    return this.clips.clip(params.project, person, params.source, body);
  }

  @Route(removeClipping)
  remove(@Call(removeClipping) { params, person }: Input<typeof removeClipping>) {
    return this.clips.remove(params.project, person, params.clipping);
  }

  @Route(keepSource)
  keep(@Call(keepSource) { params, body, person }: Input<typeof keepSource>) {
    return this.sources.keep(params.project, person, params.tray, body.again);
  }
}

/** A stored recipe with the sort of file that it reads. */
function bodyOf(recipe: unknown): RecipeBody | null {
  if (recipe === null || typeof recipe !== 'object') return null;
  const reads = contentTypeOwning(recipe)?.reads;
  return reads ? ({ reads, recipe } as RecipeBody) : null;
}

/** How many present items came from each lineage of sources. */
function countBySource(state: ProjectState): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { bindings, withdrawn, heading } of state.items)
    if (!withdrawn && !heading) for (const { partner } of bindings) counts.set(partner, (counts.get(partner) ?? 0) + 1);
  return counts;
}
