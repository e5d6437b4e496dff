import type { RegisterGround } from '@coomb/core';
import { Inject, Injectable } from '@nestjs/common';
import { ItemFactsKeeper } from '../items/item-facts.js';
import type { ProjectState } from '../project-state/project-state.js';

/** What registers, lenses and colour keys read of a project, as it stands. */
@Injectable()
export class RegisterGrounds {
  private readonly kept = new WeakMap<ProjectState, { of: string; ground: RegisterGround }>();

  constructor(@Inject(ItemFactsKeeper) private readonly facts: ItemFactsKeeper) {}

  async find(state: ProjectState): Promise<RegisterGround> {
    const facts = await this.facts.find(state);
    const of = `${state.seq} ${state.day}`;
    const known = this.kept.get(state);
    if (known?.of === of) return known.ground;
    const rules = new Map(state.scheme.rules.map((rule) => [rule.id, rule]));
    const names = new Map(state.collections.map(({ id, name }) => [id, name]));
    const states = state.allStates();
    const ground: RegisterGround = {
      scheme: state.scheme,
      graph: state.graph,
      items: state.items.map(({ kind, heading, withdrawn, reference, title, collectionId, parentId }) => ({
        ...{ kind, heading, withdrawn, reference, title, collection: collectionId },
        parent: parentId === null ? -1 : (state.nodeOf.get(parentId) ?? -1),
      })),
      rowOf: state.outline().rowOf,
      nameOfCollection: (collection) => names.get(collection) ?? '',
      stateOf: (node) => states[node]!,
      coverageOf: (rule, node) => {
        const found = rules.get(rule);
        return found ? state.coverage(found).stateOf(node) : 'notApplicable';
      },
      fieldsOf: (node) => facts.fields[node] ?? {},
      createdAt: (node) => facts.createdAt[node] ?? 0,
      changedAt: (node) => facts.changedAt[node] ?? 0,
      changedBy: (node) => facts.changedBy[node] ?? '',
      resultOf: (node) => {
        const last = state.latest.get(state.items[node]!.id);
        return last && { outcome: last.outcome, at: Date.parse(last.at) };
      },
    };
    this.kept.set(state, { of, ground });
    return ground;
  }
}
