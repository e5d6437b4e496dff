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

export interface SourceParagraph {
  type: 'paragraph';
  /** Number of the paragraph in the document, from 1, table contents not counted. */
  at: number;
  /** Page that the paragraph begins on, where the format has pages. */
  page?: number;
  /** 1 to 9 for headings, 0 for body text. */
  level: number;
  /** Depth from 1 for list paragraphs. */
  list?: { depth: number; ordered: boolean };
  text: string;
  html: string;
}

export interface SourceTable {
  type: 'table';
  /** Number of the table in the document, from 1. */
  at: number;
  rows: SourceCell[][];
}

export interface SourceCell {
  text: string;
  html: string;
  /** How many columns the cell spans. */
  span: number;
  /** The cell goes on from the one above it. */
  continued?: boolean;
}

/** A sheet of a workbook, or a comma-separated file. */
export interface SourceSheet {
  name: string;
  /** Texts by row and column; row 0 is line 1 of the sheet. */
  rows: string[][];
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
