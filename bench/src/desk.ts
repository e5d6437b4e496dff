/** How long a piece of work takes, in milliseconds. */
export async function clock(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** A new project, and what a person does in it. */
export async function openDesk(address: string, name = 'Import') {
  const send = async <R>(path: string, init?: RequestInit): Promise<R> => {
    const response = await fetch(`${address}/api${path}`, init);
    if (!response.ok) throw new Error(await response.text());
    return (await response.json()) as R;
  };
  const post = <R>(path: string, body: unknown) =>
    send<R>(path, {
      method: 'POST',
      ...(body instanceof FormData ? { body } : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
  const { id } = await post<{ id: string }>('/projects', { name });
  return {
    id,
    get: <R>(path: string) => send<R>(`/projects/${id}${path}`),
    post: <R>(path: string, body: unknown) => post<R>(`/projects/${id}${path}`, body),
    send: (path: string, method: string, body: unknown) =>
      send(`/projects/${id}${path}`, { method, body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    async handIn(name: string, bytes: Uint8Array): Promise<string> {
      const form = new FormData();
      form.set('file', new Blob([new Uint8Array(bytes)]), name);
      return (await post<{ id: string }>(`/projects/${id}/tray`, form)).id;
    },
    /** Imports a file of the tray and waits until it is stored. Throws what the server says when it is not. */
    async run(tray: string, wish: object): Promise<void> {
      const { job } = await post<{ job: string }>(`/projects/${id}/tray/${tray}/import`, wish);
      for (;;) {
        const now = await send<{ state: string; message: string }>(`/projects/${id}/jobs/${job}`);
        if (now.state === 'done') return;
        if (now.state !== 'running') throw new Error(now.message);
        await new Promise((resolve) => setTimeout(resolve, 20));
      }
    },
  };
}
