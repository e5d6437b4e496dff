import type { SourcePlace } from '../source/document.js';
import type { ExchangeBase } from './merge-versions.js';

/** That an item is known to a partner: the line of versions of a file, or a connection. */
export interface Binding {
  partner: string;
  /** Its name there. */
  externalId: string | null;
  /** What the partner called its state at the last contact. */
  tag: string | null;
}

/** What was last exchanged with a partner: where the item stood there, and the base of the next three-way merge. */
export interface LastContact {
  place: SourcePlace | null;
  base: ExchangeBase | null;
}

export function findBinding(bindings: readonly Binding[], partner: string): Binding | undefined {
  return bindings.find((binding) => binding.partner === partner);
}

/** The bindings with one that says this of a partner; what others know stays as it is. */
export function withBinding(bindings: readonly Binding[], binding: Binding): Binding[] {
  const at = bindings.findIndex((one) => one.partner === binding.partner);
  return at < 0 ? [...bindings, binding] : bindings.map((one, index) => (index === at ? binding : one));
}
