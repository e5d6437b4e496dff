import { addToGroup } from '../group-by.js';
import type { ModelDocument, ModelElement, ModelRelation } from '../source/model.js';

interface ModelGroup {
  elements: ReadonlyMap<string, ModelElement>;
  relations: ReadonlyMap<string, ModelRelation>;
  children: ReadonlyMap<string, ModelElement[]>;
  /** Name of what types an element. */
  nameOf: (element: ModelElement) => string;
}

const known = new WeakMap<ModelDocument, ModelGroup>();

/** A model by identifiers and owners; made once for all its drawings. */
export function findGroup(model: ModelDocument): ModelGroup {
  let group = known.get(model);
  if (!group) {
    const elements = new Map(model.elements.map((element) => [element.id, element]));
    const children = new Map<string, ModelElement[]>();
    for (const element of model.elements) if (element.parent !== null) addToGroup(children, element.parent, element);
    group = {
      elements,
      relations: new Map(model.relations.map((relation) => [relation.id, relation])),
      children,
      nameOf: ({ typedBy, typeName }) => {
        const type = typedBy === null ? undefined : elements.get(typedBy);
        // A lifeline stands for a part, and shows what that is a use of.
        if (type?.type === 'Property') return (type.typedBy === null ? undefined : elements.get(type.typedBy)?.name) ?? type.typeName ?? type.name;
        return type?.name ?? typeName ?? '';
      },
    };
    known.set(model, group);
  }
  return group;
}
