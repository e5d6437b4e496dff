import { findKindOfRole, linkKindsOfRole } from '../scheme/roles.js';
import type { KindRole, LinkRole } from '../scheme/role-names.js';
import { isAllowed, type LinkKind, type Scheme } from '../scheme/scheme.js';
import type { Issue } from '../source/issue.js';
import { escapeHtml } from './document-words.js';
import { finish, type Stepwise } from '../steps/stepwise.js';
import type { Draft, DraftLink, RecipeOutcome } from './draft.js';
import type { ModelDocument, ModelElement, ModelRelation } from '../source/model.js';

/** Which part each metaclass or stereotype plays; the stereotype is asked first. `null` leaves it out. */
export const usualKinds: Record<string, KindRole | null> = {
  Requirement: 'requirement',
  AbstractRequirement: 'requirement',
  Block: 'component',
  InterfaceBlock: 'interface',
  Model: 'package',
  Package: 'package',
  Class: 'component',
  Component: 'component',
  Interface: 'interface',
  Signal: 'interface',
  Actor: 'actor',
  UseCase: 'useCase',
  Activity: 'function',
  OpaqueAction: 'function',
  CallBehaviorAction: 'function',
  Port: 'port',
  Property: 'part',
};

/** Which part each relation plays; the first that the scheme has and that may join the two is taken. */
const usualLinks: Record<string, readonly LinkRole[]> = {
  Satisfy: ['satisfies', 'realises'],
  Verify: ['verifies'],
  Refine: ['refines', 'satisfies'],
  DeriveReqt: ['derives'],
  Allocate: ['allocates', 'realises'],
  Trace: ['depends'],
  Dependency: ['depends'],
  Usage: ['depends'],
  Realization: ['satisfies', 'realises'],
  Abstraction: ['depends'],
  Include: ['depends'],
};

/** Turns a model into drafts and links. Attributes of plain data stay out; what is left out is counted and named. */
export function applyModelRecipe(scheme: Scheme, model: ModelDocument): RecipeOutcome {
  return finish(readModel(scheme, model));
}

/** As `applyModelRecipe`, element by element. */
export function* readModel(scheme: Scheme, model: ModelDocument): Stepwise<RecipeOutcome> {
  const issues: Issue[] = [];
  const drafts: Draft[] = [];
  const links: DraftLink[] = [];
  const keyOf = new Map<string, number>();
  const elements = new Map(model.elements.map((element) => [element.id, element]));
  const skipped = new Map<string, number>();
  const skip = (what: string): void => void skipped.set(what, (skipped.get(what) ?? 0) + 1);
  for (const element of model.elements) {
    yield;
    const role = findElementRole(element, elements);
    const kind = role && findKindOfRole(scheme, role)?.id;
    if (!kind) {
      skip(element.stereotypes[0] ?? element.type);
      continue;
    }
    const draft: Draft = {
      key: drafts.length,
      parent: element.parent === null ? -1 : (keyOf.get(element.parent) ?? -1),
      role: role === 'package' ? 'section' : 'item',
      kind,
      reference: element.reference,
      externalId: element.id,
      title: element.name || nameless(element, elements),
      html: element.text
        ? element.text
            .split(/\n+/)
            .map((line) => `<p>${escapeHtml(line)}</p>`)
            .join('')
        : '',
      fields: {},
      place: { element: element.id, says: `element ${element.id}` },
    };
    keyOf.set(element.id, draft.key);
    drafts.push(draft);
  }
  const drawingKind = findKindOfRole(scheme, 'drawing')?.id;
  for (const { id, name } of drawingKind === undefined ? [] : model.drawings)
    drafts.push({
      ...{ key: drafts.length, parent: -1, role: 'item', kind: drawingKind!, reference: null, externalId: id },
      ...{ title: name || 'Unnamed drawing', html: '', fields: {}, place: { element: id, says: `drawing ${id}` } },
    });
  for (const element of model.elements) {
    const key = keyOf.get(element.id);
    if (key === undefined || !element.typedBy || !keyOf.has(element.typedBy)) continue;
    const target = drafts[keyOf.get(element.typedBy)!]!;
    const linkKind = findLink(scheme, ['types'], drafts[key]!.kind, target.kind);
    if (linkKind) links.push({ draft: key, linkKind: linkKind.id, reversed: false, target: element.typedBy, place: drafts[key]!.place });
  }
  for (const relation of model.relations) {
    addRelation(relation);
    yield;
  }
  for (const [what, count] of skipped)
    issues.push({
      severity: 'note',
      code: 'element-left-out',
      at: what,
      message: `${count} × ${what} was left out: it is neither structure nor behaviour that requirements are linked to`,
    });
  return { drafts, links, issues };

  function addRelation(relation: ModelRelation): void {
    const from = keyOf.get(relation.from);
    const to = keyOf.get(relation.to);
    const name = relation.stereotypes[0] ?? relation.type;
    const roles = usualLinks[name] ?? usualLinks[relation.type];
    const [meant] = (roles ?? []).flatMap((role) => linkKindsOfRole(scheme, role));
    if (from === undefined || to === undefined || !roles || !meant) return skip(name);
    const linkKind = findLink(scheme, [...roles, 'depends'], drafts[from]!.kind, drafts[to]!.kind);
    if (!linkKind) {
      issues.push({
        severity: 'warning',
        code: 'relation-not-allowed',
        at: relation.id,
        message: `"${drafts[from]!.title}" ${meant.phrase} "${drafts[to]!.title}" is not allowed between these kinds; it was left out`,
      });
      return;
    }
    links.push({
      draft: from,
      linkKind: linkKind.id,
      reversed: false,
      target: relation.to,
      place: { element: relation.id, says: `relation ${relation.id}` },
    });
  }
}

/** The first link kind that plays one of the parts and may join items of two kinds. */
function findLink(scheme: Scheme, roles: readonly LinkRole[], fromKind: string, toKind: string): LinkKind | undefined {
  return roles.flatMap((role) => linkKindsOfRole(scheme, role)).find((one) => isAllowed(one, fromKind, toKind));
}

function findElementRole(element: ModelElement, elements: Map<string, ModelElement>): KindRole | null {
  if (element.type === 'Property') {
    const type = element.typedBy ? elements.get(element.typedBy) : undefined;
    const isPart = element.composite && type && ['Class', 'Component'].includes(type.type);
    return isPart ? 'part' : null;
  }
  for (const stereotype of element.stereotypes) if (usualKinds[stereotype] !== undefined) return usualKinds[stereotype]!;
  return usualKinds[element.type] ?? null;
}

function nameless(element: ModelElement, elements: Map<string, ModelElement>): string {
  const type = element.typedBy ? elements.get(element.typedBy)?.name : undefined;
  return type ? `: ${type}` : `Unnamed ${element.type}`;
}
