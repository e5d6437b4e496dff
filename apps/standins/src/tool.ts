import { readThings, type Thing, walk } from './thing.js';
import { type Dialect, writeThings } from './write.js';

/** What a tool is like: how it writes, and what becomes of what it does not know. */
export interface ToolKind {
  name: string;
  dialect: Dialect;
  /** Things of the model and of drawings that it has a place for. */
  knows: (thing: Thing) => boolean;
  /** It keeps the rest as it is, with identifiers of its own; else it drops it. */
  keepsUnknown: boolean;
}

const PLAIN = new Set(
  'Model Package Class Component Property Port Connector ConnectorEnd Association Dependency Abstraction Realization Usage Comment Interface DataType PrimitiveType Enumeration EnumerationLiteral Actor UseCase Generalization LiteralInteger LiteralReal LiteralBoolean LiteralUnlimitedNatural LiteralString Constraint OpaqueExpression Operation Parameter'.split(
    ' ',
  ),
);

/** Writes values as attributes, keeps what it does not know, and gives that identifiers of its own. */
export const alder: ToolKind = {
  name: 'Alder',
  dialect: { xmi: 'xmi', uml: 'uml', profile: 'sysml', values: 'attributes', marks: 'after' },
  knows: ({ space }) => space !== 'unknown',
  keepsUnknown: true,
};

/** Writes values as elements and stereotypes first; has no place for behaviour, and drops what it does not know. */
export const rowan: ToolKind = {
  name: 'Rowan',
  dialect: { xmi: 'x', uml: 'U', profile: 'q', values: 'elements', marks: 'before' },
  knows: ({ space, type }) => space === 'profile' || space === 'drawing' || (space === 'model' && PLAIN.has(type)),
  keepsUnknown: false,
};

export const tools: readonly ToolKind[] = [alder, rowan];

/** A model that is open in a tool: looked at, changed, saved in the tool's own way. */
export class OpenModel {
  private readonly things: Thing[];

  constructor(
    private readonly tool: ToolKind,
    text: string,
  ) {
    this.things = readThings(text).flatMap((thing) => this.take(thing));
    this.dropLoose();
  }

  /** Things by name; throws where none or several are called so. */
  find(name: string): Thing {
    const found = [...walk(this.things)].filter((thing) => thing.space === 'model' && thing.values.name === name);
    if (found.length !== 1) throw new Error(`${found.length} things of the model are called "${name}".`);
    return found[0]!;
  }

  rename(name: string, to: string): void {
    this.find(name).values.name = to;
  }

  /** Moves the shape of a thing, in every drawing that shows it. */
  move(name: string, by: { x: number; y: number }): void {
    const { id } = this.find(name);
    let moved = 0;
    for (const shape of walk(this.things)) {
      if (shape.space !== 'drawing' || !shape.refs.modelElement?.includes(id)) continue;
      for (const { role, numbers } of shape.places) {
        if (role !== 'bounds') continue;
        numbers.x = String(Number(numbers.x) + by.x);
        numbers.y = String(Number(numbers.y) + by.y);
        moved++;
      }
    }
    if (moved === 0) throw new Error(`"${name}" is drawn nowhere.`);
  }

  /** A dependency with a stereotype, from one to another. */
  connect(from: string, to: string, stereotype: string): void {
    const id = `${this.tool.name.toLowerCase()}_${[...walk(this.things)].length}`;
    const outermost = this.things.find((thing) => thing.space === 'model');
    if (!outermost) throw new Error('There is no model.');
    const ends = { client: [this.find(from).id], supplier: [this.find(to).id] };
    outermost.inside.push({ type: 'Abstraction', space: 'model', role: 'packagedElement', id, values: {}, refs: ends, places: [], inside: [] });
    this.things.push({
      type: stereotype,
      space: 'profile',
      role: stereotype,
      id: `${id}_s`,
      values: {},
      refs: { base_Abstraction: [id] },
      places: [],
      inside: [],
    });
  }

  save(): string {
    return writeThings(this.things, this.tool.dialect, this.tool.name);
  }

  private number = 0;
  /** A thing as this tool keeps it: nothing where it drops it. */
  private take(thing: Thing): Thing[] {
    if (!this.tool.knows(thing) && !this.tool.keepsUnknown) return [];
    const inside = thing.inside.flatMap((one) => this.take(one));
    if (this.tool.knows(thing)) return [{ ...thing, inside }];
    return [{ ...thing, inside, ...(thing.id && { id: `${this.tool.name.toLowerCase()}-${++this.number}` }) }];
  }

  /** What is applied to nothing any more, and shapes of what is gone, go as well; other references lead nowhere no more. */
  private dropLoose(): void {
    for (let gone = true; gone; ) {
      gone = false;
      const ids = new Set([...walk(this.things)].map(({ id }) => id));
      const isLoose = ({ space, type, refs }: Thing) =>
        Object.entries(refs).some(([name, targets]) => leads(space, type, name) && targets.every((target) => !ids.has(target)));
      const prune = (list: Thing[]): Thing[] =>
        list.flatMap((thing) => {
          if (!this.tool.keepsUnknown && isLoose(thing)) {
            gone = true;
            return [];
          }
          thing.inside = prune(thing.inside);
          if (!this.tool.keepsUnknown)
            for (const [name, targets] of Object.entries(thing.refs)) {
              const left = targets.filter((target) => ids.has(target));
              if (left.length === 0) delete thing.refs[name];
              else thing.refs[name] = left;
            }
          return [thing];
        });
      this.things.splice(0, this.things.length, ...prune(this.things));
    }
  }
}

/** References without which a thing is nothing: what a stereotype is applied to, what a shape shows, the ends of a relation. */
function leads(space: Thing['space'], type: string, name: string): boolean {
  if (space === 'profile') return name.startsWith('base_');
  if (space === 'drawing') return !/Diagram$/.test(type) && ['modelElement', 'source', 'target'].includes(name);
  return name === 'client' || name === 'supplier';
}
