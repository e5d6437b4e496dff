import { escapeHtml, findLinkKind, type Draft, type DraftLink, type Issue, type RecipeOutcome, type Scheme } from '@coomb/core';
import type { ModelDocument, ModelElement, ModelRelation } from './model-document.js';

/** Which kind each metaclass or stereotype becomes; the stereotype is asked first. `null` leaves it out. */
export const usualKinds: Record<string, string | null> = {
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

const usualLinks: Record<string, string> = {
  Satisfy: 'satisfies',
  Verify: 'verifies',
  Refine: 'refines',
  DeriveReqt: 'derives',
  Allocate: 'allocated',
  Trace: 'depends',
  Dependency: 'depends',
  Usage: 'depends',
  Realization: 'satisfies',
  Abstraction: 'depends',
  Include: 'depends',
};

/** Turns a model into drafts and links. Attributes of plain data stay out; what is left out is counted and named. */
export function applyModelRecipe(scheme: Scheme, model: ModelDocument): RecipeOutcome {
  const issues: Issue[] = [];
  const drafts: Draft[] = [];
  const links: DraftLink[] = [];
  const keyOf = new Map<string, number>();
  const elements = new Map(model.elements.map((element) => [element.id, element]));
  const skipped = new Map<string, number>();
  const skip = (what: string): void => void skipped.set(what, (skipped.get(what) ?? 0) + 1);
  for (const element of model.elements) {
    const kind = findElementKind(element, elements);
    if (!kind || !scheme.kinds.some((one) => one.id === kind)) {
      skip(element.stereotypes[0] ?? element.type);
      continue;
    }
    const draft: Draft = {
      key: drafts.length,
      parent: element.parent === null ? -1 : (keyOf.get(element.parent) ?? -1),
      role: kind === 'package' ? 'section' : 'item',
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
  for (const element of model.elements) {
    const key = keyOf.get(element.id);
    if (key === undefined || !element.typedBy || !keyOf.has(element.typedBy)) continue;
    links.push({ draft: key, linkKind: 'typed', reversed: false, target: element.typedBy, place: drafts[key]!.place });
  }
  for (const relation of model.relations) addRelation(relation);
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
    const linkKind = findLinkKind(scheme, usualLinks[name] ?? usualLinks[relation.type] ?? '');
    if (from === undefined || to === undefined || !linkKind) return skip(name);
    const fromKind = drafts[from]!.kind;
    const toKind = drafts[to]!.kind;
    const fits = linkKind.fromKinds.includes(fromKind) && linkKind.toKinds.includes(toKind);
    const fallback = scheme.linkKinds.find((one) => one.id === 'depends' && one.fromKinds.includes(fromKind) && one.toKinds.includes(toKind));
    if (!fits && !fallback) {
      issues.push({
        severity: 'warning',
        code: 'relation-not-allowed',
        at: relation.id,
        message: `"${drafts[from]!.title}" ${linkKind.phrase} "${drafts[to]!.title}" is not allowed between these kinds; it was left out`,
      });
      return;
    }
    links.push({
      draft: from,
      linkKind: fits ? linkKind.id : fallback!.id,
      reversed: false,
      target: relation.to,
      place: { element: relation.id, says: `relation ${relation.id}` },
    });
  }
}

function findElementKind(element: ModelElement, elements: Map<string, ModelElement>): string | null {
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
