import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startServer } from '@coomb/server';
import { Builder } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';
import { medianOf, type Row } from './measure.js';
import { benchProject } from './large-project.js';

const web = fileURLToPath(new URL('../../apps/web/dist', import.meta.url));

/** Opening views of the large project in a browser, and the longest frame while the pointer crosses or the wheel turns. */
export async function benchPage(folder: string): Promise<Row[]> {
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
  const size = '50,000 items, 200,000 links';
  const rows: Row[] = [];
  try {
    await driver.manage().setTimeouts({ script: 60_000 });
    for (const { what, path, shown, move } of views) {
      const opens: number[] = [];
      for (let i = 0; i < 3; i++) {
        const start = performance.now();
        await driver.get(`${server.address}/p/${benchProject}${path}`);
        await driver.wait(async () => driver.executeScript<boolean>(`return document.body.innerText.includes(${JSON.stringify(shown)})`), 60_000);
        opens.push(performance.now() - start);
      }
      rows.push({ what: `${what}: opened in the browser`, size, runs: 3, median: medianOf(opens) });
      await driver.sleep(800);
      const frames = await driver.executeAsyncScript<number[]>(watchFrames(move));
      frames.sort((a, b) => a - b);
      rows.push({
        what: `${what}: longest of ${frames.length} frames while ${move === 'wheel' ? 'scrolling' : 'hovering'}`,
        size,
        runs: 1,
        median: frames.at(-1)!,
        goal: '≤ 50 ms',
      });
    }
  } finally {
    await driver.quit();
    await server.stop();
    rmSync(profile, { recursive: true, force: true });
  }
  return rows;
}

const views: { what: string; path: string; shown: string; move: 'pointer' | 'wheel' }[] = [
  { what: 'section', path: '', shown: '22,500 items', move: 'pointer' },
  { what: 'read', path: '/shape', shown: 'SYS-2', move: 'wheel' },
  { what: 'matrix', path: '/link/matrix', shown: 'SYS-2', move: 'wheel' },
];

/** Runs in the page: moves for two seconds and gives back the time between frames. */
function watchFrames(move: 'pointer' | 'wheel'): string {
  return `
    const done = arguments[arguments.length - 1];
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
      if (${JSON.stringify(move)} === 'pointer') {
        const box = canvas.getBoundingClientRect();
        canvas.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, clientX: box.left + box.width * part, clientY: box.top + box.height * (0.2 + 0.6 * part) }));
      } else scroller.scrollTop += 40;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);`;
}
