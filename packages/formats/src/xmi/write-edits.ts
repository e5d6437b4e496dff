import type { AddedElement, AddedRelation, ModelEdits } from '../model-out/model-edits.js';
import { escapeText, type XmlEdit } from '../xml/rewrite-xml.js';
import { UmlBuilder } from './build-uml-model.js';
import { isDiagram } from './build-drawings.js';
import { Dialect } from './dialect.js';
import { isApplication } from './stereotypes.js';
import { SYSML, SYSML_STEREOTYPES } from '../model-out/sysml.js';
import type { XmiFile } from './xmi-file.js';
import { allOf, type XmiObject } from './xmi-objects.js';

/** Stereotypes of SysML 1.4 and later that tell what leads to an end, and the one that tells nothing else. */
const WITH_PATHS = new Set(['Satisfy', 'Verify', 'Refine', 'Trace', 'DeriveReqt', 'Copy', 'Allocate']);
const PATHS_ONLY = 'DirectedRelationshipPropertyPath';

/** Edits of each file of a model, by the numbers of its elements. `files` are as they were read; they are not changed. */
export function buildXmiEdits(files: readonly XmiFile[], edits: ModelEdits): Map<string, Map<number, XmlEdit>> {
  const builder = new UmlBuilder(files);
  builder.build();
  return new EditWriter(files, builder, edits).write();
}

/** Lengths as files write them: no more digits than anybody sees. */
const sayNumber = (value: number): string => String(Math.round(value * 1000) / 1000);

class EditWriter {
  private readonly written = new Map<string, Map<number, XmlEdit>>();
  private readonly fileOf = new Map<XmiObject, XmiFile>();
  private readonly objectOf = new Map<string, XmiObject>();
  private readonly applications = new Map<XmiObject, XmiObject[]>();
  private readonly comments = new Map<XmiObject, XmiObject[]>();

  constructor(
    private readonly files: readonly XmiFile[],
    private readonly builder: UmlBuilder,
    private readonly edits: ModelEdits,
  ) {
    for (const file of files)
      for (const object of file.content.objects) {
        this.fileOf.set(object, file);
        const id = object.element?.id ?? object.relation?.id ?? (isDiagram(object) ? object.id : undefined);
        if (id !== undefined && !this.objectOf.has(id)) this.objectOf.set(id, object);
      }
    for (const file of files)
      for (const object of file.content.objects) {
        if (isApplication(object))
          for (const property in object.properties)
            if (property.startsWith('base_'))
              for (const target of builder.refer(object, property, file)) if ('object' in target) note(this.applications, target.object, object);
        if (object.type === 'Comment') {
          const about = builder.refer(object, 'annotatedElement', file).flatMap((target) => ('object' in target ? [target.object] : []));
          for (const one of about.length > 0 ? about : object.owner ? [object.owner] : []) note(this.comments, one, object);
        }
      }
  }

  write(): Map<string, Map<number, XmlEdit>> {
    const { edits } = this;
    for (const [id, name] of edits.names) this.setProperty(this.objectOf.get(id), 'name', name);
    for (const [id, text] of edits.texts) this.setText(this.objectOf.get(id), text);
    for (const [id, type] of edits.types) this.setReference(this.objectOf.get(id), 'type', type);
    for (const [id, values] of edits.values) for (const [name, value] of values) this.setValue(this.objectOf.get(id), name, value);
    this.remove();
    this.removeRelations();
    this.addElements();
    for (const relation of edits.addedRelations) this.addRelation(relation);
    this.placeDrawn();
    return this.written;
  }

  /** Shapes and lines that were placed anew: their bounds and waypoints. */
  private placeDrawn(): void {
    const { boxes, points } = this.edits;
    if (boxes.size + points.size === 0) return;
    for (const file of this.files)
      for (const object of file.content.objects) {
        const box = boxes.get(object.id);
        const bounds = box && object.structures?.find(({ tag }) => tag === 'bounds');
        if (box && bounds) {
          const edit = this.editOf(file, bounds.at);
          const said = bounds.attributes;
          const changed = (['x', 'y', 'width', 'height'] as const).filter((name) => Number(said[name]) !== box[name]);
          edit.attributes = { ...edit.attributes, ...Object.fromEntries(changed.map((name) => [name, sayNumber(box[name])])) };
        }
        const bends = points.get(object.id);
        if (bends) this.bend(file, object, bends);
      }
  }

  private bend(file: XmiFile, object: XmiObject, bends: readonly { x: number; y: number }[]): void {
    const known = object.structures?.filter(({ tag }) => tag === 'waypoint') ?? [];
    known.forEach(({ at, attributes }, index) => {
      const bend = bends[index];
      const edit = this.editOf(file, at);
      if (!bend) edit.drop = true;
      else if (Number(attributes.x) !== bend.x || Number(attributes.y) !== bend.y)
        edit.attributes = { ...edit.attributes, x: sayNumber(bend.x), y: sayNumber(bend.y) };
    });
    for (const { x, y } of bends.slice(known.length)) this.append(file, object.at, `<waypoint x="${sayNumber(x)}" y="${sayNumber(y)}"/>`);
  }

  private editOf(file: XmiFile, at: number): XmlEdit {
    let own = this.written.get(file.name);
    if (!own) this.written.set(file.name, (own = new Map()));
    let edit = own.get(at);
    if (!edit) own.set(at, (edit = {}));
    return edit;
  }

  /** Where the property stands, as an attribute or an element; a new one the way the file writes its values. */
  private setProperty(object: XmiObject | undefined, property: string, value: string | null): void {
    if (!object) return;
    const file = this.fileOf.get(object)!;
    const places = object.propertyAt?.[property];
    if (places) {
      places.forEach((at, index) => Object.assign(this.editOf(file, at), index === 0 && value !== null ? { text: value } : { drop: true }));
      return;
    }
    if (property in object.properties || value === null || !this.dialectOf(file).valuesAsElements) {
      const edit = this.editOf(file, object.at);
      edit.attributes = { ...edit.attributes, [property]: value };
    } else this.append(file, object.at, `<${property}>${escapeText(value)}</${property}>`);
  }

  /** What a property refers to: another element of the model, or nothing. */
  private setReference(object: XmiObject | undefined, property: string, id: string | null): void {
    if (!object) return;
    const file = this.fileOf.get(object)!;
    for (const at of object.propertyAt?.[property] ?? []) this.editOf(file, at).drop = true;
    const target = id === null ? undefined : (this.objectOf.get(id)?.id ?? id);
    const { attribute, inside } = target === undefined ? { attribute: '', inside: '' } : this.dialectOf(file).refer(property, [target]);
    const edit = this.editOf(file, object.at);
    edit.attributes = { ...edit.attributes, [property]: attribute && target !== undefined ? target : null };
    if (inside) this.append(file, object.at, inside);
  }

  private append(file: XmiFile, at: number, markup: string): void {
    const edit = this.editOf(file, at);
    edit.append = (edit.append ?? '') + markup;
  }

  /** The text of a requirement is its stereotype's; that of others is their comment. */
  private setText(object: XmiObject | undefined, text: string): void {
    if (!object) return;
    const requirement = this.applications.get(object)?.find((one) => /requirement$/i.test(one.type) || one.properties.text !== undefined);
    if (requirement) return this.setProperty(requirement, requirement.properties.Text === undefined ? 'text' : 'Text', text);
    if (object.type === 'OpaqueAction' || object.type === 'OpaqueBehavior') return this.setProperty(object, 'body', text);
    const file = this.fileOf.get(object)!;
    const own = (this.comments.get(object) ?? []).filter(
      (comment) => (this.builder.refer(comment, 'annotatedElement', this.fileOf.get(comment)!).length || 1) === 1,
    );
    const [first, ...more] = own;
    if (!first) {
      if (!text) return;
      const { xmi, uml } = this.dialectOf(file);
      const about = this.dialectOf(file).refer('annotatedElement', [object.id]);
      const id = this.dialectOf(file).identify(`coomb-text-of-${object.id}`.replace(/[^\w.-]/g, '_'));
      const body = this.dialectOf(file).value('body', text);
      return this.append(
        file,
        object.at,
        `<ownedComment ${xmi}type="${uml}Comment"${id}${body.attribute}${about.attribute}>${body.inside}${about.inside}</ownedComment>`,
      );
    }
    if (text) this.setProperty(first, 'body', text);
    else this.drop(first);
    for (const comment of more) this.drop(comment);
  }

  /** A tagged value stands on its stereotype: `Risky.level`. */
  private setValue(object: XmiObject | undefined, name: string, value: string | null): void {
    if (!object) return;
    const at = name.indexOf('.');
    if (at < 0) return;
    const application = this.applications.get(object)?.find((one) => one.type === name.slice(0, at));
    this.setProperty(application, name.slice(at + 1), value);
  }

  private drop(object: XmiObject): void {
    this.editOf(this.fileOf.get(object)!, object.at).drop = true;
  }

  /** Elements go with what is in them, what is applied to them, what leads to them, and the shapes that show them. */
  private remove(): void {
    const gone = new Set<XmiObject>();
    for (const id of this.edits.removed) {
      const object = this.objectOf.get(id);
      if (object) {
        gone.add(object);
        this.drop(object);
      }
    }
    if (gone.size === 0) return;
    const isGone = (object: XmiObject): boolean => {
      for (let at: XmiObject | null = object; at; at = at.owner) if (gone.has(at)) return true;
      return false;
    };
    for (const file of this.files)
      for (const object of file.content.objects) {
        if (gone.has(object)) continue;
        if (isGone(object)) gone.add(object);
      }
    for (let before = -1; before !== gone.size; ) {
      before = gone.size;
      for (const file of this.files)
        for (const object of file.content.objects)
          if (!gone.has(object) && this.restsOn(object, file, gone)) {
            gone.add(object);
            for (const child of object.children ?? []) if (!gone.has(child)) gone.add(child);
            this.drop(object);
          }
    }
    // Whatever else names them, names them no more.
    for (const file of this.files) for (const object of file.content.objects) if (!gone.has(object)) this.forget(object, file, gone);
  }

  private restsOn(object: XmiObject, file: XmiFile, gone: ReadonlySet<XmiObject>): boolean {
    const leads = (property: string) => this.builder.refer(object, property, file).flatMap((target) => ('object' in target ? [target.object] : []));
    const allGone = (list: XmiObject[]) => list.length > 0 && list.every((one) => gone.has(one));
    if (isApplication(object)) return Object.keys(object.properties).some((property) => property.startsWith('base_') && allGone(leads(property)));
    if (object.space === 'di')
      return allGone(leads('modelElement')) || leads('source').some((one) => gone.has(one)) || leads('target').some((one) => gone.has(one));
    if (object.type === 'Comment') return allGone(leads('annotatedElement'));
    if (object.type === 'Connector')
      return (object.children ?? []).some((end) => this.builder.refer(end, 'role', file).some((target) => 'object' in target && gone.has(target.object)));
    if (object.relation) {
      if (['Association', 'AssociationClass'].includes(object.type))
        return (object.children ?? []).some((end) =>
          allGone(this.builder.refer(end, 'type', file).flatMap((target) => ('object' in target ? [target.object] : []))),
        );
      return ['client', 'supplier', 'general', 'source', 'target', 'addition', 'extendedCase', 'contract', 'informationSource', 'informationTarget'].some(
        (property) => allGone(leads(property)),
      );
    }
    return false;
  }

  private forget(object: XmiObject, file: XmiFile, gone: ReadonlySet<XmiObject>): void {
    for (const property in object.properties) {
      if (property === 'name' || property === 'body') continue;
      const texts = allOf(object, property);
      const isLost = (text: string) => {
        const found = file.byId.get(text) ?? file.byId.get(text.replace(/^#/, ''));
        return found !== undefined && gone.has(found);
      };
      if (!texts.some((text) => text.split(/\s+/).some(isLost))) continue;
      const places = object.propertyAt?.[property];
      if (places)
        texts.forEach((text, index) => {
          if (isLost(text) && places[index] !== undefined) this.editOf(file, places[index]).drop = true;
        });
      else {
        const left = texts[0]!.split(/\s+/).filter((text) => !isLost(text));
        const edit = this.editOf(file, object.at);
        edit.attributes = { ...edit.attributes, [property]: left.length > 0 ? left.join(' ') : null };
      }
    }
  }

  /** A relation of one end each goes whole; of one with several, the ends go that lead nowhere any more. */
  private removeRelations(): void {
    const byRelation = new Map<string, { from: string; to: string }[]>();
    for (const { relation, from, to } of this.edits.removedRelations) byRelation.set(relation, [...(byRelation.get(relation) ?? []), { from, to }]);
    for (const [id, pairs] of byRelation) {
      const object = this.objectOf.get(id);
      const relation = object?.relation;
      if (!object || !relation || this.written.get(this.fileOf.get(object)!.name)?.get(object.at)?.drop) continue;
      const isTaken = (from: string, to: string) => pairs.some((pair) => pair.from === from && pair.to === to);
      const from = relation.from.filter((one) => relation.to.some((to) => !isTaken(one, to)));
      const to = relation.to.filter((one) => relation.from.some((other) => !isTaken(other, one)));
      if (from.length === 0 || to.length === 0) {
        this.drop(object);
        for (const application of this.applications.get(object) ?? []) this.drop(application);
        this.dropEdges(object);
      } else {
        this.keepEnds(object, 'client', from);
        this.keepEnds(object, 'supplier', to);
      }
    }
  }

  private dropEdges(relation: XmiObject): void {
    for (const file of this.files)
      for (const object of file.content.objects)
        if (object.space === 'di' && this.builder.refer(object, 'modelElement', file).some((target) => 'object' in target && target.object === relation))
          this.drop(object);
  }

  private keepEnds(object: XmiObject, property: string, kept: readonly string[]): void {
    const file = this.fileOf.get(object)!;
    const texts = allOf(object, property);
    const isKept = (text: string) => {
      const target = file.byId.get(text.replace(/^.*#/, ''));
      return !target?.element || kept.includes(target.element.id);
    };
    const places = object.propertyAt?.[property];
    if (places)
      texts.forEach((text, index) => {
        if (!isKept(text) && places[index] !== undefined) this.editOf(file, places[index]).drop = true;
      });
    else if (texts.length > 0) {
      const edit = this.editOf(file, object.at);
      edit.attributes = { ...edit.attributes, [property]: texts[0]!.split(/\s+/).filter(isKept).join(' ') };
    }
  }

  private addElements(): void {
    const { added } = this.edits;
    const owned = new Map<string, AddedElement[]>();
    const known = new Set(added.map(({ id }) => id));
    for (const element of added)
      if (element.parent !== null && known.has(element.parent)) owned.set(element.parent, [...(owned.get(element.parent) ?? []), element]);
    for (const element of added) {
      if (element.parent !== null && known.has(element.parent)) continue;
      const owner = (element.parent === null ? undefined : this.objectOf.get(element.parent)) ?? this.outermost();
      if (!owner) continue;
      const file = this.fileOf.get(owner)!;
      this.append(file, owner.at, this.markupOf(file, element, owner.type, owned));
    }
  }

  /** The model itself. */
  private outermost(): XmiObject | undefined {
    for (const file of this.files)
      for (const object of file.content.objects) if (object.element && !object.owner?.element && ['Model', 'Package'].includes(object.type)) return object;
    return undefined;
  }

  private markupOf(file: XmiFile, element: AddedElement, ownerType: string, owned: ReadonlyMap<string, AddedElement[]>): string {
    const { xmi, uml } = this.dialectOf(file);
    const tag = tagIn(ownerType, element.type);
    const name = this.dialectOf(file).value('name', element.name);
    const isRequirement = element.stereotypes.some((one) => /requirement$/i.test(one));
    const composite = element.role === 'part' ? this.dialectOf(file).value('aggregation', 'composite') : { attribute: '', inside: '' };
    const typed =
      element.typedBy === undefined
        ? { attribute: '', inside: '' }
        : this.dialectOf(file).refer('type', [this.objectOf.get(element.typedBy)?.id ?? element.typedBy]);
    let inside = name.inside + composite.inside + typed.inside;
    if (element.text && !isRequirement) {
      const about = this.dialectOf(file).refer('annotatedElement', [element.id]);
      const body = this.dialectOf(file).value('body', element.text);
      inside += `<ownedComment ${xmi}type="${uml}Comment"${this.dialectOf(file).identify(`${element.id}-text`)}${body.attribute}${about.attribute}>${body.inside}${about.inside}</ownedComment>`;
    }
    inside += (owned.get(element.id) ?? []).map((one) => this.markupOf(file, one, element.type, owned)).join('');
    for (const stereotype of element.stereotypes) {
      const values = new Map(
        [...element.values].flatMap(([key, text]) => (key.startsWith(`${stereotype}.`) ? [[key.slice(stereotype.length + 1), text] as const] : [])),
      );
      if (/requirement$/i.test(stereotype)) {
        values.set('id', element.reference);
        values.set('text', element.text);
      }
      this.apply(file, stereotype, element.type, element.id, values);
    }
    return `<${tag} ${xmi}type="${uml}${element.type}"${this.dialectOf(file).identify(element.id)}${name.attribute}${composite.attribute}${typed.attribute}${inside ? `>${inside}</${tag}>` : '/>'}`;
  }

  private addRelation({ id, type, stereotypes, from, to, fromUse, toUse }: AddedRelation): void {
    const owner = this.outermost();
    if (!owner) return;
    const file = this.fileOf.get(owner)!;
    const { xmi, uml } = this.dialectOf(file);
    const idOf = (key: string) => this.objectOf.get(key)?.id ?? key;
    const [client, supplier] = [this.dialectOf(file).refer('client', [idOf(from)]), this.dialectOf(file).refer('supplier', [idOf(to)])];
    const inside = client.inside + supplier.inside;
    this.append(
      file,
      owner.at,
      `<packagedElement ${xmi}type="${uml}${type}"${this.dialectOf(file).identify(id)}${client.attribute}${supplier.attribute}${inside ? `>${inside}</packagedElement>` : '/>'}`,
    );
    const paths = [
      ['source', fromUse],
      ['target', toUse],
    ] as const;
    const uses = new Map<string, string[]>();
    for (const [end, use] of paths) {
      if (!use) continue;
      uses.set(`${end}Context`, [idOf(use[0]!)]);
      if (use.length > 1) uses.set(`${end}PropertyPath`, use.slice(1).map(idOf));
    }
    const carrier = uses.size === 0 ? undefined : (stereotypes.find((one) => WITH_PATHS.has(one)) ?? PATHS_ONLY);
    for (const stereotype of carrier === PATHS_ONLY ? [...stereotypes, PATHS_ONLY] : stereotypes)
      this.apply(file, stereotype, type, id, new Map(), stereotype === carrier ? uses : new Map());
  }

  /** Beside the model, as the file does it; a file whose root is the model itself has no place for stereotypes. */
  private apply(
    file: XmiFile,
    stereotype: string,
    base: string,
    on: string,
    values: ReadonlyMap<string, string>,
    references: ReadonlyMap<string, readonly string[]> = new Map(),
  ): void {
    if (file.content.root !== 'XMI') return;
    const like =
      file.content.objects.find((object) => isApplication(object) && object.type === stereotype) ??
      file.content.objects.find((object) => isApplication(object) && !object.owner);
    const baseName = like?.type === stereotype ? Object.keys(like.properties).find((property) => property.startsWith('base_'))! : `base_${base}`;
    // What SysML has no word for is said by the file's own profile, if it declares one.
    const own = like || SYSML_STEREOTYPES.has(stereotype.toLowerCase()) ? undefined : [...file.content.profiles].find(([, uri]) => uri !== SYSML)?.[0];
    const prefix = like ? like.name.slice(0, like.name.indexOf(':') + 1) : `${own ?? 'sysml'}:`;
    const declared = like || own !== undefined ? '' : ` xmlns:sysml="${SYSML}"`;
    const based = this.dialectOf(file).refer(baseName, [on]);
    const written = [
      ...[...values].map(([name, text]) => this.dialectOf(file).value(name, text)),
      ...[...references].map(([name, ids]) => this.dialectOf(file).refer(name, ids)),
    ];
    const inside = based.inside + written.map((one) => one.inside).join('');
    const attributes = based.attribute + written.map((one) => one.attribute).join('');
    const name = `${prefix}${stereotype}`;
    this.append(file, 0, `<${name}${declared}${this.dialectOf(file).identify(`${on}-${stereotype}`)}${attributes}${inside ? `>${inside}</${name}>` : '/>'}`);
  }

  private readonly dialects = new Map<XmiFile, Dialect>();
  private dialectOf(file: XmiFile): Dialect {
    let known = this.dialects.get(file);
    if (!known) this.dialects.set(file, (known = new Dialect(file)));
    return known;
  }
}

/** What an element is called where it stands: packages, classes and others name what they own differently. */
function tagIn(owner: string, type: string): string {
  const isPackage = ['Model', 'Package', 'Profile'].includes(owner);
  if (isPackage) return 'packagedElement';
  if (type === 'Property' || type === 'Port') return 'ownedAttribute';
  if (type === 'Operation') return 'ownedOperation';
  if (type === 'UseCase') return 'ownedUseCase';
  if (type === 'State' || type === 'Pseudostate') return 'subvertex';
  if (/(?:Action|Node)$/.test(type)) return 'node';
  if (['Activity', 'StateMachine', 'Interaction', 'OpaqueBehavior', 'FunctionBehavior'].includes(type)) return 'ownedBehavior';
  return owner === 'Component' ? 'packagedElement' : 'nestedClassifier';
}

function note<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const known = map.get(key);
  if (known) known.push(value);
  else map.set(key, [value]);
}
