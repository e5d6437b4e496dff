import { markdownWriter } from './markdown-writer.js';
import { modelWriter, standardModelWriter } from './model-writer.js';
import { reqifWriter } from './reqif-writer.js';
import { csvWriter, xlsxWriter } from './sheet-writers.js';
import type { Writer } from './writer.js';

/** Every format that goes out. */
export const writers: readonly Writer[] = [xlsxWriter, csvWriter, markdownWriter, reqifWriter, modelWriter, standardModelWriter];
