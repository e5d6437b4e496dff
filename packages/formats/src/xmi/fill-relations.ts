import type { ModelRelation } from '@coomb/core';
import { RELATIONS } from './metamodel.js';
import { first, ownedBy, sayBehaviour, sayMultiplicity, sayOwned } from './say-value.js';
import type { ModelUnderWay } from './under-way.js';
import type { Target, XmiFile } from './xmi-file.js';
import { allOf, type XmiObject } from './xmi-objects.js';

/** Ends and words of a relation, by what its sort calls them. */
export function fillRelation(under: ModelUnderWay, object: XmiObject, relation: ModelRelation, file: XmiFile): void {
  const nameOf = under.nameOf(file);
  const ends = RELATIONS[object.type];
  if (ends)
    for (const end of ['from', 'to'] as const) {
      const property = ends[end].find((one) => allOf(object, one).some((text) => text.trim()));
      if (property) join(under, object, relation, end, under.refer(object, property, file), file);
      else if (end === 'from') {
        const owner = under.ownerOf(object);
        if (owner) relation.from.push(owner.id);
      }
    }
  else if (object.type === 'Connector') fillConnector(under, object, relation, file);
  else if (object.type === 'Message') fillMessage(under, object, relation, file);
  else fillAssociation(under, object, relation, file);
  const tell = (word: string, text: string) => {
    if (text) relation.values[word] = text;
  };
  tell('guard', sayOwned(object, 'guard', nameOf));
  if (object.type === 'Transition') {
    tell('trigger', sayTriggers(under, object, file));
    tell('effect', sayBehaviour(object, 'effect', nameOf));
  }
  if (object.type === 'Extend') tell('condition', sayOwned(object, 'condition', nameOf));
  if (object.type === 'InformationFlow') tell('conveys', under.namesOf(object, 'conveyed', file));
  if (object.type === 'Message') {
    tell('sort', first(object, 'messageSort'));
    relation.name ||= nameOf(first(object, 'signature'));
  }
}

/** Ends that are elements, or that lie in a file which is not at hand; what is nowhere is told. */
function join(under: ModelUnderWay, object: XmiObject, relation: ModelRelation, end: 'from' | 'to', targets: readonly Target[], file: XmiFile): void {
  for (const target of targets)
    if ('object' in target) {
      const key = target.object.element?.id ?? target.object.relation?.id;
      if (key) relation[end].push(key);
    } else if ('missing' in target) {
      under.miss(target.missing);
      (relation.waiting ??= []).push({ end, target: target.at });
    } else if ('dangling' in target)
      under.issues.add(
        'warning',
        'relation-dangling',
        under.at(object, file),
        `${relation.type} ${relation.name ? `"${relation.name}" ` : ''}(${relation.id}) ends at ${target.dangling.slice(0, 120)}, which is not in the file; that end makes no link`,
      );
}

function fillConnector(under: ModelUnderWay, object: XmiObject, relation: ModelRelation, file: XmiFile): void {
  const ends = ownedBy(object, 'end');
  ends.forEach((end, index) => {
    const side = index === 0 ? 'from' : 'to';
    join(under, object, relation, side, under.refer(end, 'role', file), file);
    const part = under.namesOf(end, 'partWithPort', file);
    if (part) relation.values[`${side} part`] = part;
  });
  const type = under.typeOf(object, file);
  if (type) relation.values.type = type;
}

function fillMessage(under: ModelUnderWay, object: XmiObject, relation: ModelRelation, file: XmiFile): void {
  for (const [property, end] of [
    ['sendEvent', 'from'],
    ['receiveEvent', 'to'],
  ] as const)
    for (const target of under.refer(object, property, file)) {
      if (!('object' in target)) continue;
      const covered = under.refer(target.object, 'covered', target.file);
      join(under, object, relation, end, covered, target.file);
    }
}

/** From the class whose property the association is, or from the whole to its parts; where both ends are the association's own, in their order. */
function fillAssociation(under: ModelUnderWay, object: XmiObject, relation: ModelRelation, file: XmiFile): void {
  const own = ownedBy(object, 'ownedEnd');
  const named = under.refer(object, 'memberEnd', file).flatMap((target) => ('object' in target ? [target.object] : []));
  const ends = [...new Set([...named, ...own])];
  if (ends.length < 2) return;
  const whole = ends.find((end) => ['composite', 'shared'].includes(first(end, 'aggregation')));
  const ofClass = ends.find((end) => end.owner !== object);
  const target = whole ?? ofClass ?? ends[1]!;
  const source = ends.find((end) => end !== target)!;
  if (whole) relation.role = first(whole, 'aggregation') as 'composite';
  const nameOf = under.nameOf(file);
  for (const [end, property] of [
    ['from', source],
    ['to', target],
  ] as const) {
    join(under, object, relation, end, under.refer(property, 'type', file), file);
    const says = [first(property, 'name'), sayMultiplicity(property, nameOf)].filter(Boolean).join(' ');
    if (says) relation.values[`${end} end`] = says;
  }
  for (const more of ends) if (more !== source && more !== target) join(under, object, relation, 'to', under.refer(more, 'type', file), file);
}

/** What sets something off, in the words of its events. */
export function sayTriggers(under: ModelUnderWay, object: XmiObject, file: XmiFile): string {
  return ownedBy(object, 'trigger')
    .map((trigger) => {
      const [event] = under.refer(trigger, 'event', file);
      if (!event || !('object' in event)) return first(trigger, 'name');
      const found = event.object;
      const nameOf = under.nameOf(event.file);
      return (
        nameOf(first(found, 'signal')) ||
        nameOf(first(found, 'operation')) ||
        sayOwned(found, 'changeExpression', nameOf) ||
        sayOwned(found, 'when', nameOf) ||
        first(found, 'name') ||
        first(trigger, 'name')
      );
    })
    .filter(Boolean)
    .join(', ');
}
