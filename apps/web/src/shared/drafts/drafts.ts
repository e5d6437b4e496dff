import type { FieldValue } from '@coomb/core';
import { useSyncExternalStore } from 'react';
import { z } from 'zod';

/** A text that somebody began and has not stored. It stays in the browser over Back, another view and a reload. */
export interface Draft {
  /** Reference of the item, or words for a new one. */
  about: string;
  /** Address that leads back to it, below the project's. */
  path: string;
  at: string;
  title: string;
  html: string;
  fields: Record<string, FieldValue>;
  /** Revision that the text was begun on. */
  revision: number;
}

const schema = z.record(
  z.string(),
  z.object({
    about: z.string(),
    path: z.string(),
    at: z.string(),
    title: z.string(),
    html: z.string(),
    fields: z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null(), z.array(z.string())])),
    revision: z.number(),
  }),
);

type Drafts = Readonly<Record<string, Draft>>;

const keyOf = (project: string) => `coomb.drafts.${project}`;
const listeners = new Set<() => void>();
/** What was read last, so that whoever asks again gets the same object until something changes. */
const known = new Map<string, { text: string | null; drafts: Drafts }>();

/** Unfinished texts of a project, by item id or by `new <collection>`. What cannot be read counts as none. */
export function readDrafts(project: string): Drafts {
  const text = localStorage.getItem(keyOf(project));
  const before = known.get(project);
  if (before && before.text === text) return before.drafts;
  const drafts = parse(text);
  known.set(project, { text, drafts });
  return drafts;
}

export function keepDraft(project: string, id: string, draft: Draft): void {
  write(project, { ...readDrafts(project), [id]: draft });
}

export function dropDraft(project: string, id: string): void {
  const { [id]: dropped, ...others } = readDrafts(project);
  if (dropped) write(project, others);
}

/** The unfinished texts of a project, as they stand now. */
export function useDrafts(project: string): Drafts {
  return useSyncExternalStore(listen, () => readDrafts(project));
}

function parse(text: string | null): Drafts {
  try {
    const parsed = schema.safeParse(JSON.parse(text ?? '{}'));
    return parsed.success ? parsed.data : {};
  } catch {
    return {};
  }
}

function write(project: string, drafts: Drafts): void {
  try {
    if (Object.keys(drafts).length === 0) localStorage.removeItem(keyOf(project));
    else localStorage.setItem(keyOf(project), JSON.stringify(drafts));
  } catch {
    // A browser without room for it: the text lives on in the editor alone.
  }
  for (const listener of listeners) listener();
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}
