import { cleanXmlId } from '@coomb/formats';
import type { ProjectState } from '../project-state/project-state.js';
import type { ScenePart } from './export-scene.js';
import type { ExportRow, ExportsRepo } from './exports.repo.js';

/** Tells of links that leave a new model where their other ends stand: in the models that the other collections go out as. */
export class OtherFiles {
  /** `partners` has the partner whose UML model each collection goes out as, where it came from one. */
  constructor(
    private readonly repo: Pick<ExportsRepo, 'findRows'>,
    private readonly partners: ReadonlyMap<string, string>,
    private readonly here: ReadonlySet<string>,
  ) {}

  async address(state: ProjectState, seq: number, parts: readonly ScenePart[]): Promise<void> {
    const outside = new Set(parts.flatMap(({ ends }) => ends.flatMap(({ other }) => (this.here.has(other) ? [] : [other]))));
    if (outside.size === 0) return;
    const known = await this.findIdentifiers(state, seq, outside);
    const names = new Map(state.contents.collections.map(({ id, name }) => [id, name]));
    for (const { ends } of parts)
      for (const end of ends) {
        const collection = state.items[state.nodeOf.get(end.other) ?? -1]?.collectionId;
        const name = collection !== undefined && outside.has(end.other) ? names.get(collection) : undefined;
        if (name !== undefined) end.elsewhere = `${encodeURIComponent(name)}.xmi#${cleanXmlId(known.get(end.other) ?? `coomb-${end.other}`)}`;
      }
  }

  /** Identifiers that items have in the models that they came from. */
  private async findIdentifiers(state: ProjectState, seq: number, items: ReadonlySet<string>): Promise<Map<string, string>> {
    const byPartner = new Map<string, string[]>();
    for (const id of items) {
      const partner = this.partners.get(state.items[state.nodeOf.get(id) ?? -1]?.collectionId ?? '');
      if (partner !== undefined) byPartner.set(partner, [...(byPartner.get(partner) ?? []), id]);
    }
    const found = new Map<string, string>();
    for (const [partner, ids] of byPartner)
      for (const { id, externalId } of JSON.parse(await this.repo.findRows(state.id, seq, ids, partner)) as ExportRow[])
        if (externalId !== null) found.set(id, externalId);
    return found;
  }
}
