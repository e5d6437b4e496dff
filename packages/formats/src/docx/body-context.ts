import type { Note } from './notes.js';
import type { Numbering } from './numbering.js';
import type { ParagraphStyle } from './styles.js';

/** What the other parts of a document say that its body refers to. */
export interface BodyContext {
  styles: Map<string, ParagraphStyle>;
  numbering: Numbering | undefined;
  targets: Map<string, string>;
  /** Addresses outside the file that links lead to, by relationship id. */
  addresses: Map<string, string>;
  /** Footnotes, endnotes and comments by id. */
  footnotes: Map<string, Note>;
  endnotes: Map<string, Note>;
  comments: Map<string, Note>;
}
