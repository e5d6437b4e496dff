/** A project of its own on a running Coomb, as programs see it. */
export interface MadeProject {
  /** Addresses of its calls, and of its pages. */
  base: string;
  page: string;
  call: <T>(path: string, body?: unknown, method?: string) => Promise<T>;
  /** Hands a file in and imports it as is wished; done when it is in. */
  handIn: (name: string, text: string, wish: object) => Promise<void>;
  outline: () => Promise<Outline>;
}

export interface Outline {
  id: string[];
  reference: string[];
  title: string[];
  collection: number[];
  collections: string[];
}

export async function makeProject(address: string, name: string): Promise<MadeProject> {
  const json = (body: unknown, method = 'POST') => ({ method, body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } });
  const { id } = (await (await fetch(`${address}/api/projects`, json({ name }))).json()) as { id: string };
  const base = `${address}/api/projects/${id}`;
  const call = async <T>(path: string, body?: unknown, method?: string): Promise<T> =>
    (await fetch(`${base}${path}`, body === undefined ? {} : json(body, method))).json() as Promise<T>;
  return {
    ...{ base, call, page: `${address}/p/${id}` },
    outline: () => call<Outline>('/outline'),
    handIn: async (file, text, wish) => {
      const form = new FormData();
      form.set('file', new Blob([text]), file);
      const entry = (await (await fetch(`${base}/tray`, { method: 'POST', body: form })).json()) as { id: string };
      const { job } = await call<{ job: string }>(`/tray/${entry.id}/import`, wish);
      for (let state = 'running'; state === 'running'; ) {
        state = (await call<{ state: string }>(`/jobs/${job}`)).state;
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
    },
  };
}

/** Links of a project in words, in an order of their own. */
export async function readLinks(call: MadeProject['call']): Promise<string[]> {
  const { rows } = await call<{ rows: { from: { reference: string }; kind: string; to: { reference: string } }[] }>('/link-list?limit=200');
  return rows.map(({ from, kind, to }) => `${from.reference} ${kind} ${to.reference}`).toSorted();
}

/** Where an item stands in an outline: its id, and that of its collection. */
export const finderIn = (outline: Outline) => ({
  idOf: (reference: string) => outline.id[outline.reference.indexOf(reference)]!,
  collectionOf: (reference: string) => outline.collections[outline.collection[outline.reference.indexOf(reference)]!]!,
});
