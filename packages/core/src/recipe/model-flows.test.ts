import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import type { ModelDocument, ModelElement } from '../source/model.js';
import { applyModelRecipe } from './model-recipe.js';
import { proposeModelRecipe } from './propose-model-recipe.js';

function process(nodes: Record<string, string>, flows: [string, string][]): ModelDocument {
  return {
    ...{ notation: 'bpmn', exporter: '', drawings: [], unknown: new Map(), missing: [] },
    elements: Object.entries(nodes).map(
      ([id, type], index): ModelElement => ({
        id,
        type,
        stereotypes: [],
        name: id,
        parent: null,
        typedBy: null,
        text: '',
        reference: null,
        values: {},
        line: index + 1,
      }),
    ),
    relations: flows.map(([from, to], index) => ({
      id: `f${index}`,
      type: 'SequenceFlow',
      stereotypes: [],
      from: [from],
      to: [to],
      name: '',
      values: {},
      line: 100 + index,
    })),
  };
}

function read(model: ModelDocument): string[] {
  const { drafts, links } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
  return links.map(({ draft, linkKind, target }) => `${drafts[draft]!.title} ${linkKind} ${target}`).sort();
}

describe('what leads on in a model', () => {
  it('is a link from task to task, through gateways and events that become no items', () => {
    const model = process({ begin: 'StartEvent', ask: 'Task', which: 'ExclusiveGateway', raise: 'Task', lower: 'UserTask', end: 'EndEvent' }, [
      ['begin', 'ask'],
      ['ask', 'which'],
      ['which', 'raise'],
      ['which', 'lower'],
      ['raise', 'end'],
      ['lower', 'raise'],
    ]);
    expect(read(model)).toEqual(['ask goesOn lower', 'ask goesOn raise', 'lower goesOn raise']);
  });

  it('ends where it goes round among what becomes no item', () => {
    const model = process({ ask: 'Task', one: 'ExclusiveGateway', two: 'ExclusiveGateway', done: 'Task' }, [
      ['ask', 'one'],
      ['one', 'two'],
      ['two', 'one'],
      ['two', 'done'],
      ['done', 'one'],
    ]);
    expect(read(model)).toEqual(['ask goesOn done']);
  });
});
