import type { KindRole } from '../../scheme/role-names.js';
import type { CompositionGround } from '../../composition/composition.js';

/** A link as one of its ends has it. */
export interface GroundLink {
  link: number;
  other: number;
  phrase: string;
  /** It leads from the node to the other. */
  out: boolean;
  suspect: boolean;
}

/** What drawings of ours are made from. Items are numbers; headings are items, too. */
export interface MadeGround extends CompositionGround {
  /** Every item that is present, in reading order. */
  nodes: () => readonly number[];
  idOf: (node: number) => string;
  titleOf: (node: number) => string;
  referenceOf: (node: number) => string;
  kindLabelOf: (node: number) => string;
  hasRole: (node: number, role: KindRole) => boolean;
  isHeading: (node: number) => boolean;
  parentOf: (node: number) => number;
  childrenOf: (node: number) => readonly number[];
  /** Number of the collection, and how it is called. */
  collectionOf: (node: number) => number;
  collections: readonly { id: string; name: string }[];
  /** Links to present items, those of structure aside. */
  linksOf: (node: number) => readonly GroundLink[];
}
