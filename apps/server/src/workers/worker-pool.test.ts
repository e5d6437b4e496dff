import { describe, expect, it } from 'vitest';
import { WorkerPool } from './worker-pool.js';

/** Two things, or a thousand in circles that keep the thread for as long as it may. */
const short = { sort: 'order', nodes: 2, from: [0], to: [1], weight: [1], seed: 1, seconds: 1 };
const count = 1000;
const long = {
  ...{ sort: 'order', nodes: count, seed: 1, seconds: 60 },
  from: Array.from({ length: count * 4 }, (_, at) => at % count),
  to: Array.from({ length: count * 4 }, (_, at) => ((at % count) * 7 + 13 * (1 + Math.floor(at / count))) % count),
  weight: Array.from({ length: count * 4 }, () => 1),
};

describe('WorkerPool', () => {
  it('answers what waited behind a task that its caller ended', async () => {
    const pool = new WorkerPool<object, { order: number[] }>('structures/structure.worker.js', 1);
    const leaving = new AbortController();
    const first = pool.run(long, { signal: leaving.signal });
    const second = pool.run(short);
    const third = pool.run(short);
    setTimeout(() => leaving.abort(), 700);
    await expect(first).rejects.toThrow(/abort/i);
    expect((await Promise.all([second, third])).map(({ order }) => order)).toEqual([
      [1, 0],
      [1, 0],
    ]);
    await pool.close();
  });

  it('passes on what a task throws, and goes on', async () => {
    const pool = new WorkerPool<object, { order: number[] }>('structures/structure.worker.js', 1);
    const bad = pool.run({ ...short, from: null });
    const good = pool.run(short);
    await expect(bad).rejects.toThrow();
    expect((await good).order).toEqual([1, 0]);
    await pool.close();
  });

  it('lets go at once who leaves while they wait, and goes on with who stayed', async () => {
    const pool = new WorkerPool<object, { order: number[] }>('structures/structure.worker.js', 1);
    const [running, leaving] = [new AbortController(), new AbortController()];
    const first = pool.run(long, { signal: running.signal });
    first.catch(() => {});
    const left = pool.run(short, { signal: leaving.signal });
    const stayed = pool.run(short);
    leaving.abort();
    // The first still runs.
    await expect(left).rejects.toMatchObject({ name: 'AbortError' });
    running.abort();
    expect((await stayed).order).toEqual([1, 0]);
    await expect(pool.run(short, { signal: AbortSignal.abort() })).rejects.toMatchObject({ name: 'AbortError' });
    expect((await pool.run(short)).order).toEqual([1, 0]);
    await pool.close();
  });

  it('refuses what runs, waits or comes when it is closed', async () => {
    const pool = new WorkerPool<object, { order: number[] }>('structures/structure.worker.js', 1);
    const all = [pool.run(long), pool.run(short), pool.run(short)].map((run) => run.catch((error) => error));
    await pool.close();
    expect((await Promise.all(all)).map(({ code }) => code)).toEqual(['unavailable', 'unavailable', 'unavailable']);
    await expect(pool.run(short)).rejects.toMatchObject({ code: 'unavailable' });
  });
});
