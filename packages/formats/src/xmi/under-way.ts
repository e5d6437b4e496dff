import type { ModelDocument, ModelElement } from '@coomb/core';
import type { ModelIssues } from '../xml/model-issues.js';
import type { Target, XmiFile } from './xmi-file.js';
import type { XmiObject } from './xmi-objects.js';

/** A model while it is made of objects: what its stereotypes and drawings need of it. */
export interface ModelUnderWay {
  readonly model: ModelDocument;
  readonly issues: ModelIssues;
  /** What a property of an object refers to, one by one. */
  refer: (object: XmiObject, property: string, file: XmiFile) => Target[];
  /** Names of what a property refers to, parted by commas. */
  namesOf: (object: XmiObject, property: string, file: XmiFile) => string;
  /** Says what a reference from a file leads to: a name, or a value in words. */
  nameOf: (file: XmiFile) => (reference: string) => string;
  /** Name of an object's type. */
  typeOf: (object: XmiObject, file: XmiFile) => string;
  /** Notes that a file is needed which is not at hand. */
  miss: (part: string) => void;
  /** Where an object stands, for people. */
  at: (object: XmiObject, file: XmiFile) => string;
  /** The element that an object stands in. */
  ownerOf: (object: XmiObject) => ModelElement | undefined;
}
