import { createHash } from 'node:crypto';
import { buildDrawn, contentTypeOf, findBinding, type SourcePicture } from '@coomb/core';
import type { FileContent } from '@coomb/formats';
import type { Clock } from '../http/tokens.js';
import type { Change, CollectionValue, DrawingValue, SourceValue } from '../ledger/change.js';
import type { RecipeWish } from './apply-recipe.js';
import type { NewFile } from '../files/files.repo.js';
import type { TrayFile } from '../tray/tray.service.js';

/** The first version of a source; a newer one is given its line afterwards. */
export function buildSource(
  clock: Clock,
  projectId: string,
  person: string,
  now: string,
  file: TrayFile,
  wish: RecipeWish & { recipe?: string | undefined },
): SourceValue {
  const id = clock.newId();
  return {
    id,
    projectId,
    revision: 1,
    withdrawn: false,
    name: file.name,
    format: file.format.id,
    mediaType: file.format.mediaType,
    size: file.size,
    importedAt: now,
    importedBy: person,
    recipe: wish.documentRecipe ?? wish.sheetRecipe ?? wish.exchangeRecipe ?? wish.modelRecipe ?? null,
    issues: [],
    lineageId: id,
    collectionId: null,
    choices: null,
    recipeId: wish.recipe ?? null,
  };
}

/** The original, under the id of its source, and the pictures in it. A picture that is stored already (`known`, by its hash) keeps its address. */
export async function buildFiles(
  clock: Clock,
  projectId: string,
  sourceId: string,
  file: TrayFile,
  known: ReadonlyMap<string, string> = new Map(),
): Promise<{ files: NewFile[]; addresses: Map<string, string> }> {
  const files: NewFile[] = [{ id: sourceId, projectId, sourceId, name: file.name, mediaType: file.format.mediaType, bytes: await file.readBytes() }];
  const addresses = new Map<string, string>();
  for (const [name, picture] of picturesOf(file.content)) {
    const stored = known.get(createHash('sha256').update(picture.bytes).digest('hex'));
    const id = stored ?? clock.newId();
    addresses.set(name, `/api/projects/${projectId}/files/${id}`);
    if (!stored) files.push({ id, projectId, sourceId, name, mediaType: picture.mediaType, bytes: picture.bytes });
  }
  return { files, addresses };
}

/** Pictures that came in a file. */
export function picturesOf(content: FileContent): ReadonlyMap<string, SourcePicture> {
  return (content.type === 'results' ? undefined : contentTypeOf(content.type).pictures?.(content)) ?? new Map();
}

type Model = Extract<FileContent, { type: 'model' }>['model'];

/** Drawings of a model as they are kept: new, changed, or withdrawn where `before` has one that the model lacks. `items` are those that its elements became, by what the model calls them. */
export function buildDrawings(
  clock: Clock,
  collection: Pick<CollectionValue, 'id' | 'projectId'>,
  model: Model,
  items: ReadonlyMap<string, string>,
  before: readonly DrawingValue[] = [],
): Change[] {
  const { id: collectionId, projectId } = collection;
  const known = new Map(before.map((row) => [row.externalId, row]));
  const changes = model.drawings.flatMap((drawing): Change[] => {
    const body = buildDrawn(model, drawing, (element) => items.get(element) ?? null);
    const itemId = items.get(drawing.id) ?? null;
    const old = known.get(drawing.id);
    known.delete(drawing.id);
    if (!old) {
      const after: DrawingValue = {
        id: clock.newId(),
        projectId,
        revision: 1,
        withdrawn: false,
        collectionId,
        itemId,
        name: drawing.name,
        externalId: drawing.id,
        body,
      };
      return [{ entity: 'drawing', before: null, after }];
    }
    // Boxes were put there here: no file says anything of them.
    const now = { ...body, ...(old.body.boxes && { boxes: old.body.boxes }) };
    const isSame = !old.withdrawn && old.itemId === itemId && old.name === drawing.name && sorted(old.body) === sorted(now);
    return isSame
      ? []
      : [{ entity: 'drawing', before: old, after: { ...old, withdrawn: false, itemId, name: drawing.name, body: now, revision: old.revision + 1 } }];
  });
  for (const old of known.values())
    if (!old.withdrawn) changes.push({ entity: 'drawing', before: old, after: { ...old, withdrawn: true, revision: old.revision + 1 } });
  return changes;
}

/** JSON with its keys in one order: the database has an order of its own. */
function sorted(value: unknown): string {
  return JSON.stringify(value, (_, one: unknown) =>
    one && typeof one === 'object' && !Array.isArray(one) ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1))) : one,
  );
}

/** Items that changes make or leave, by what a partner calls them. */
export function itemsByName(changes: readonly Change[], partner: string): Map<string, string> {
  return new Map(
    changes.flatMap((change) => {
      const name = change.entity === 'item' ? findBinding(change.after.bindings, partner)?.externalId : undefined;
      return name ? [[name, change.after.id] as const] : [];
    }),
  );
}
