/** A word-processed document as people read it: blocks in order. Texts are plain, `html` is sanitised. */
export interface SourceDocument {
  blocks: SourceBlock[];
  /** Pictures by the name their `img` elements use. */
  pictures: Map<string, SourcePicture>;
}

export interface SourcePicture {
  mediaType: string;
  bytes: Uint8Array;
}

export type SourceBlock = SourceParagraph | SourceTable;

/** A remark that somebody tied to a passage; no part of the text. */
export interface SourceComment {
  by: string;
  text: string;
}

/** How a text read before tracked changes, and with both shown: `ins` around what came in, `del` around what went out. */
export interface TrackedText {
  text: string;
  html: string;
  marked: string;
}

/** What stands in a paragraph or a cell. Tracked changes are taken as accepted in `text` and `html`. */
export interface SourceWords {
  text: string;
  html: string;
  tracked?: TrackedText;
  /** Footnotes and endnotes as markup; their marks, such as [2], stand in the text. */
  footnotes?: { mark: string; html: string }[];
  comments?: SourceComment[];
}

export interface SourceParagraph extends SourceWords {
  type: 'paragraph';
  /** Number of the paragraph in the document, from 1, table contents not counted. */
  at: number;
  /** Page that the paragraph begins on, where the format has pages. */
  page?: number;
  /** 1 to 9 for headings, 0 for body text. */
  level: number;
  /** Depth from 1 for list paragraphs; `begins` where a list is known to begin, though one stands right before it. */
  list?: { depth: number; ordered: boolean; begins?: boolean };
  /** Number that the document counts for it, such as 4.2.1 or b); not part of the text. */
  number?: string;
  /** It stands in a quotation. */
  quoted?: boolean;
  /** What is no running text: a sample of code, whose labels are none, or a line of a table of contents, which is no item. */
  aside?: 'code' | 'contents';
  said?: SaidOfBlock;
}

/** What an exported file says of a block, so that it comes back as it went out. */
export interface SaidOfBlock {
  /** Label of the field that it is part of. */
  field?: string;
  /** It is text, even where it begins like an item or a label. */
  isText?: boolean;
  /** Reference of a heading whose words do not tell it. */
  reference?: string;
  /** Reference of what it stands directly under, where its place does not tell; empty at the top. */
  parent?: string;
}

export interface SourceTable {
  type: 'table';
  /** Number of the table in the document, from 1. */
  at: number;
  rows: SourceCell[][];
  /** Rows that the header goes over; 1 when unsaid. */
  headerRows?: number;
  /** Number of the table that it stands in a cell of; its text is part of that cell too. */
  inside?: number;
  said?: SaidOfBlock;
}

export interface SourceCell extends SourceWords {
  /** How many columns the cell spans. */
  span: number;
  /** The cell goes on from the one above it. */
  continued?: boolean;
  /** The cell names what stands beside or below it. */
  heads?: boolean;
}

/** A sheet of a workbook, or a comma-separated file. */
export interface SourceSheet {
  name: string;
  /** Texts by row and column; row 0 is line 1 of the sheet. */
  rows: string[][];
  /** Cells that were made one; the text stands in the first. Rows and columns from 0, ends included. */
  merges?: SheetMerge[];
  /** How the file parts and quotes its values, where that was guessed. */
  dialect?: { separator: string; quote: string };
}

export interface SheetMerge {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/** Place of an item in its source. */
export interface SourcePlace {
  /** Index into `blocks`, for documents. */
  block?: number;
  /** Row of a table or sheet, from 0. */
  row?: number;
  sheet?: string;
  page?: number;
  /** Element id in a model file. */
  element?: string;
  /** The same for people: "table 3, row 4". */
  says: string;
}
