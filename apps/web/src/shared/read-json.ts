import type { z } from 'zod';

/** Reads a JSON file of a known shape. Throws with what is wrong with it, and where: "x.json is not a recipe file: kinds.2.label: …". */
export async function readFileOf<S extends z.ZodType>(file: File, schema: S, what: string): Promise<z.output<S>> {
  let json: unknown;
  try {
    json = JSON.parse(await file.text());
  } catch (error) {
    throw new Error(`${file.name} is not ${what}: it is no JSON.${error instanceof Error ? ` ${error.message}` : ''}`);
  }
  const parsed = schema.safeParse(json);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new Error(`${file.name} is not ${what}: ${issue!.path.join('.') || 'the whole'}: ${issue!.message}.`);
}

/** What a text says in JSON; nothing where it says nothing, or is none. For what a browser kept, which anybody may have changed. */
export function parseJson(text: string | null): unknown {
  try {
    return text === null ? undefined : JSON.parse(text);
  } catch {
    return undefined;
  }
}
