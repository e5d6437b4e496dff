import { schemeFileSchema } from '@coomb/contract';
import { saveFile } from '../../shared/save-file';
import type { SchemeFile } from './queries';

/** Hands a scheme over as a file. */
export function saveSchemeFile(file: SchemeFile): void {
  saveFile(`${file.name}.scheme.json`, new Blob([`${JSON.stringify(file, null, 2)}\n`], { type: 'application/json' }));
}

/** Reads a scheme file. Throws with what is wrong with it, and where. */
export async function readSchemeFile(file: File): Promise<SchemeFile> {
  let json: unknown;
  try {
    json = JSON.parse(await file.text());
  } catch (error) {
    throw new Error(`${file.name} is not a scheme file: it is no JSON. ${error instanceof Error ? error.message : ''}`.trim());
  }
  const parsed = schemeFileSchema.safeParse(json);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Error(`${file.name} is not a scheme file: ${issue!.path.join('.') || 'the whole'}: ${issue!.message}.`);
}
