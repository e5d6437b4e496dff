import {
  type ElementRule,
  hasRole,
  type Kind,
  type KindRole,
  type LinkKind,
  type ModelDocument,
  type ModelRecipe,
  type RelationRule,
  type Scheme,
} from '@coomb/core';
import { escapeAttribute } from '../xml/rewrite-xml.js';
import { SYSML, SYSML_STEREOTYPES } from './sysml.js';
import { USUAL_RELATIONS } from './usual-relations.js';

/** What items of a kind are in a model that is made here, by the part that the kind plays. */
interface Form {
  type: string;
  stereotypes: string[];
  /** What properties of the type are read as, depending on what types them. */
  roles?: readonly string[];
}

const FORMS: Partial<Record<KindRole, Form>> = {
  need: { type: 'Class', stereotypes: ['Requirement'] },
  requirement: { type: 'Class', stereotypes: ['Requirement'] },
  test: { type: 'Activity', stereotypes: ['TestCase'] },
  actor: { type: 'Actor', stereotypes: [] },
  useCase: { type: 'UseCase', stereotypes: [] },
  step: { type: 'OpaqueBehavior', stereotypes: [] },
  function: { type: 'Activity', stereotypes: [] },
  package: { type: 'Package', stereotypes: [] },
  component: { type: 'Class', stereotypes: ['Block'] },
  interface: { type: 'Class', stereotypes: ['InterfaceBlock'] },
  part: { type: 'Property', stereotypes: [], roles: ['part', 'value', 'reference'] },
  value: { type: 'Property', stereotypes: [], roles: ['value', 'reference', 'part'] },
  port: { type: 'Port', stereotypes: [] },
};
const OTHER: Form = { type: 'Class', stereotypes: [] };

const PROFILE = 'urn:coomb:kinds';
const UML = 'http://www.omg.org/spec/UML/20161101';

/** Stereotype of a kind or link kind: says what the standard has no word for, and holds the values. */
interface Own {
  name: string;
  base: string;
  values: { name: string; meaning: ElementRule['values'][number]['meaning'] }[];
}

/** A model that holds nothing yet, and what goes into it: for items that came from no model. */
export interface NewModel {
  bytes: Buffer;
  model: ModelDocument;
  recipe: ModelRecipe;
}

/**
 * A model of UML and SysML for items that came from none. What the standard has a word for is said by it: requirements, blocks, parts, test cases,
 * satisfying, verifying. Kinds that it does not tell apart, references and fields are stereotypes of a profile of their own, which the model holds.
 */
export function openNewModel(scheme: Scheme, name: string): NewModel {
  const recipe = recipeForNewModel(scheme);
  const profile = [...kindsOf(scheme), ...linkKindsOf(scheme)].flatMap(({ own }) => own ?? []);
  const markup = `<?xml version="1.0" encoding="UTF-8"?>
<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="${UML}" xmlns:sysml="${SYSML}" xmlns:coomb="${PROFILE}">
<uml:Model xmi:type="uml:Model" xmi:id="coomb-model" name="${escapeAttribute(name)}">
<profileApplication xmi:type="uml:ProfileApplication" xmi:id="coomb-with-sysml"><appliedProfile href="${SYSML}.xmi#SysML"/></profileApplication>
<profileApplication xmi:type="uml:ProfileApplication" xmi:id="coomb-with-kinds" appliedProfile="coomb-kinds"/>
<packagedElement xmi:type="uml:Profile" xmi:id="coomb-kinds" name="Kinds" URI="${PROFILE}">
${profile.map(writeStereotype).join('')}</packagedElement>
</uml:Model>
</xmi:XMI>
`;
  return {
    bytes: Buffer.from(markup),
    model: { notation: 'uml', exporter: '', elements: [], relations: [], drawings: [], unknown: new Map(), missing: [] },
    recipe,
  };
}

/** Reads such a model back. */
export function recipeForNewModel(scheme: Scheme): ModelRecipe {
  const elements = kindsOf(scheme).flatMap(({ kind, form, own }) =>
    (form.roles ?? ['']).map((role): ElementRule => {
      const sort = sortText([...form.stereotypes, own.name], role, form.type);
      return { sort, label: sort, becomes: 'items', kind: kind.id, values: own.values.map((value) => ({ ...value, name: `${own.name}.${value.name}` })) };
    }),
  );
  const relations = linkKindsOf(scheme).map(({ kind, type, stereotypes, own }): RelationRule => {
    const sort = sortText(own ? [...stereotypes, own.name] : stereotypes, '', type);
    return { sort, label: sort, linkKinds: [kind.id], reversed: false };
  });
  // The outermost is the file's, not an item.
  const model: ElementRule = { sort: 'Model', label: 'Model', becomes: 'file', kind: null, values: [] };
  return { name: 'Made here', elements: [...elements, model], relations };
}

const sortText = (stereotypes: readonly string[], role: string, type: string) =>
  `${stereotypes
    .toSorted()
    .map((name) => `«${name}» `)
    .join('')}${role ? `${role} ` : ''}${type}`;

function kindsOf(scheme: Scheme): { kind: Kind; form: Form; own: Own }[] {
  const taken = new Set<string>(SYSML_STEREOTYPES);
  return scheme.kinds
    .filter(({ id }) => !hasRole(scheme, id, 'drawing'))
    .map((kind) => {
      const form = kind.roles?.flatMap((role) => FORMS[role] ?? [])[0] ?? OTHER;
      const names = new Set(['id', 'text', 'name', 'reference']);
      const fields = kind.fields.map((field) => ({ name: nameFor(field.label, names, false), meaning: { as: 'field', field: field.id } as const }));
      // A requirement has an identifier of its own in SysML.
      const values = form.stereotypes.includes('Requirement') ? fields : [{ name: 'reference', meaning: { as: 'reference' } as const }, ...fields];
      return { kind, form, own: { name: nameFor(kind.label, taken, true), base: form.type, values } };
    });
}

/** The first link kind of a part is what the standard calls it; others have stereotypes of their own. */
function linkKindsOf(scheme: Scheme): { kind: LinkKind; type: string; stereotypes: string[]; own: Own | undefined }[] {
  const said = new Set<string>();
  const taken = new Set<string>([...SYSML_STEREOTYPES, ...kindsOf(scheme).map(({ own }) => own.name.toLowerCase())]);
  // What a part is a use of is told by its type, what it is a part of by where it stands.
  return scheme.linkKinds
    .filter(({ role }) => role !== 'types' && role !== 'composes')
    .map((kind) => {
      const usual = kind.role && USUAL_RELATIONS[kind.role];
      const isFirst = usual !== undefined && !said.has(kind.role!);
      if (isFirst) said.add(kind.role!);
      const { type, stereotypes } = usual ?? { type: 'Dependency', stereotypes: [] };
      return { kind, type, stereotypes, own: isFirst ? undefined : { name: nameFor(kind.phrase, taken, true), base: type, values: [] } };
    });
}

/** A name as XML allows it, from words; unlike all that are taken, whatever their case. */
function nameFor(label: string, taken: Set<string>, capital: boolean): string {
  const words = label.split(/[^\p{L}\p{N}_]+/u).filter(Boolean);
  const joined = words.map((word, at) => (at === 0 && !capital ? word.toLowerCase() : word[0]!.toUpperCase() + word.slice(1))).join('');
  const clean = joined.replace(/^(?=\d)/, '_') || (capital ? 'Kind' : 'value');
  let name = clean;
  for (let number = 1; taken.has(name.toLowerCase()); number++) name = `${clean}${number === 1 ? (capital ? 'Details' : 'Value') : number}`;
  taken.add(name.toLowerCase());
  return name;
}

function writeStereotype({ name, base, values }: Own): string {
  const id = `coomb-kinds-${name}`;
  const string = `<type href="${UML}/PrimitiveTypes.xmi#String"/>`;
  const properties = values.map(
    (value) => `<ownedAttribute xmi:type="uml:Property" xmi:id="${id}-${value.name}" name="${value.name}">${string}</ownedAttribute>`,
  );
  return `<packagedElement xmi:type="uml:Stereotype" xmi:id="${id}" name="${name}"><ownedAttribute xmi:type="uml:Property" xmi:id="${id}-base" name="base_${base}" association="${id}-extends"><type href="${UML}/UML.xmi#${base}"/></ownedAttribute>${properties.join('')}</packagedElement>
<packagedElement xmi:type="uml:Extension" xmi:id="${id}-extends" memberEnd="${id}-base ${id}-extended"><ownedEnd xmi:type="uml:ExtensionEnd" xmi:id="${id}-extended" name="extension_${name}" type="${id}" aggregation="composite"/></packagedElement>
`;
}
