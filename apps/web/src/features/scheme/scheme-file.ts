import { schemeFileSchema } from '@coomb/contract';
import { readFileOf } from '../../shared/read-json';
import { saveFile } from '../../shared/save-file';
import type { SchemeFile } from './queries';

/** Hands a scheme over as a file. */
export function saveSchemeFile(file: SchemeFile): void {
  saveFile(`${file.name}.scheme.json`, new Blob([`${JSON.stringify(file, null, 2)}\n`], { type: 'application/json' }));
}

/** Reads a scheme file. Throws with what is wrong with it, and where. */
export function readSchemeFile(file: File): Promise<SchemeFile> {
  return readFileOf(file, schemeFileSchema, 'a scheme file');
}
