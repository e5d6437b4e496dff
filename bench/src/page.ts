import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startServer } from '@coomb/server';
import { Builder } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';
import { medianOf, type Row, time } from './measure.js';
import { benchProject, collectionOf, fillLarge } from './large-project.js';

const web = fileURLToPath(new URL('../../apps/web/dist', import.meta.url));

interface View {
  what: string;
  path: string;
  shown: string;
  /** What is done while frames are watched: the pointer crosses, or so many pixels are scrolled in each frame. */
  moves: ('pointer' | { down: number; right?: number })[];
}

/** A register of thirty columns, nine of them through links. */
const wide = (() => {
  const own = [
    ...['reference', 'title', 'text', 'kind', 'collection', 'place', 'state', 'layer', 'result', 'resultAt', 'links', 'suspect', 'changedAt', 'changedBy'],
    ...['createdAt', 'usage', 'drawnIn'],
  ].map((sort) => ({ way: [], shown: { sort } }));
  const fields = ['priority', 'owner', 'rationale', 'method'].map((of) => ({ way: [], shown: { sort: 'field', of } }));
  const through = ['verifies', 'derives', 'satisfies', 'refines']
    .flatMap((linkKind) => ['to', 'from'].map((end) => ({ way: [{ linkKind, end }], shown: { sort: 'reference' } })))
    .concat([{ way: [{ linkKind: 'depends', end: 'to' }], shown: { sort: 'reference' } }]);
  const columns = [...own, ...fields, ...through].map((column, at) => ({ id: `c${at}`, as: 'list', ...column }));
  return encodeURIComponent(JSON.stringify({ kinds: [], columns, conditions: [], match: 'all', sort: [], group: [], shape: 'list' }));
})();

/** Opening views of the large project in a browser, and frames while the pointer crosses or one scrolls. */
export const benchPage = (folder: string): Promise<Row[]> =>
  browse(folder, '50,000 items, 200,000 links', [
    { what: 'section', path: '', shown: '22,500 items', moves: ['pointer'] },
    { what: 'read', path: '/shape', shown: 'SYS-2', moves: [{ down: 40 }] },
    { what: 'matrix', path: '/link/matrix', shown: 'SYS-2', moves: [{ down: 40 }, { down: 400, right: 400 }] },
    { what: 'register of 30 columns', path: `/shape/register?what=${wide}`, shown: 'NEED-2', moves: [{ down: 40 }, { down: 400 }, { down: 40, right: 40 }] },
  ]);

/** The same of a matrix of everything with everything, a million links between them. */
export async function benchMillion(): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'coomb-million-'));
  try {
    await fillLarge(folder, { items: 44_444, links: 1_000_000 });
    const ids = Object.values(collectionOf).map(({ id }) => id);
    const path = `/link/matrix?rows=${ids.join()}&columns=${ids.join()}`;
    const size = '44,444 × 44,444, 1,000,000 links';
    const views = [
      {
        what: 'matrix',
        path,
        shown: 'NEED-2',
        moves: [
          { down: 22, right: 22 },
          { down: 200, right: 200 },
          { down: 2000, right: 2000 },
        ],
      },
    ];
    return await browse(folder, size, views, async (address) => {
      const ask = async () => {
        const response = await fetch(`${address}/api/projects/${benchProject}/matrix`, {
          ...{ method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ rows: {}, columns: {} }) },
        });
        if (!response.ok) throw new Error(await response.text());
        await response.arrayBuffer();
      };
      // The project is read once, when it is asked for the first time.
      await ask();
      return { what: 'matrix: sent by the server', size, runs: 5, median: await time(5, ask), goal: '≤ 1 s' };
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function browse(folder: string, size: string, views: readonly View[], first?: (address: string) => Promise<Row>): Promise<Row[]> {
  const server = await startServer({ data: folder, port: 0, host: '127.0.0.1', web });
  const profile = mkdtempSync(join(tmpdir(), 'coomb-page-'));
  const options = new Options();
  options.setChromeBinaryPath('/usr/bin/chromium');
  options.addArguments(
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--window-size=1280,943',
    `--user-data-dir=${profile}`,
  );
  const driver = await new Builder().forBrowser('chrome').setChromeOptions(options).setChromeService(new ServiceBuilder('/usr/bin/chromedriver')).build();
  const rows: Row[] = [];
  try {
    if (first) rows.push(await first(server.address));
    await driver.manage().setTimeouts({ script: 60_000 });
    for (const { what, path, shown, moves } of views) {
      const opens: number[] = [];
      for (let i = 0; i < 3; i++) {
        const start = performance.now();
        await driver.get(`${server.address}/p/${benchProject}${path}`);
        await driver.wait(async () => driver.executeScript<boolean>(`return document.body.innerText.includes(${JSON.stringify(shown)})`), 60_000);
        opens.push(performance.now() - start);
      }
      rows.push({ what: `${what}: opened in the browser`, size, runs: 3, median: medianOf(opens) });
      await driver.sleep(800);
      for (const move of moves) {
        const frames = await driver.executeAsyncScript<number[]>(watchFrames(move));
        frames.sort((a, b) => a - b);
        const at = (share: number) => `${Math.round(frames[Math.min(frames.length - 1, Math.floor(frames.length * share))]!)} ms`;
        const says = move === 'pointer' ? 'hovering' : `scrolling ${move.down} pixels${move.right ? ` down and ${move.right} across` : ''} a frame`;
        rows.push({
          ...{ what: `${what}: median of ${frames.length} frames while ${says}`, size, runs: 1, median: medianOf(frames) },
          compared: `95 of 100 within ${at(0.95)}, longest ${at(1)}`,
          goal: 'none over 50 ms',
        });
        await driver.sleep(500);
      }
    }
  } finally {
    await driver.quit();
    await server.stop();
    rmSync(profile, { recursive: true, force: true });
  }
  return rows;
}

/** Runs in the page: moves for two seconds and gives back the time between frames. */
function watchFrames(move: View['moves'][number]): string {
  return `
    const done = arguments[arguments.length - 1];
    const move = ${JSON.stringify(move)};
    const canvas = document.querySelector('canvas');
    const scroller = [...document.querySelectorAll('main *')].filter((e) => e.scrollHeight > e.clientHeight + 500 && getComputedStyle(e).overflowY !== 'visible').sort((a, b) => b.scrollHeight - a.scrollHeight)[0];
    const gaps = [];
    const start = performance.now();
    let last = start;
    const tick = (now) => {
      gaps.push(now - last);
      last = now;
      const part = (now - start) / 2000;
      if (part >= 1) return done(gaps.slice(1));
      if (move === 'pointer') {
        const box = canvas.getBoundingClientRect();
        canvas.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, clientX: box.left + box.width * part, clientY: box.top + box.height * (0.2 + 0.6 * part) }));
      } else scroller.scrollBy(move.right ?? 0, move.down);
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);`;
}
