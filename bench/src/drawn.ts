import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startServer } from '@coomb/server';
import { Builder, type WebDriver } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';
import { medianOf, quantile, type Row } from './measure.js';

const web = fileURLToPath(new URL('../../apps/web/dist', import.meta.url));
const figure = (value: number) => value.toLocaleString('en');

/** Blocks in a grid with three lines and two edges each, as a tool places them. */
function makeDrawn(shapes: number): string {
  const side = Math.ceil(Math.sqrt(shapes));
  const blocks: string[] = [];
  const marks: string[] = [];
  const drawn: string[] = [];
  for (let at = 0; at < shapes; at++) {
    const lines = ['one', 'two', 'three'].map((name) => `<ownedAttribute xmi:type="uml:Property" xmi:id="b${at}${name}" name="${name}" type="t"/>`).join('');
    blocks.push(`<packagedElement xmi:type="uml:Class" xmi:id="b${at}" name="Block ${at}">${lines}</packagedElement>`);
    marks.push(`<sysml:Block xmi:id="m${at}" base_Class="b${at}"/>`);
    drawn.push(
      `<ownedElement xmi:type="umldi:UMLClassifierShape" xmi:id="s${at}" modelElement="b${at}"><bounds x="${(at % side) * 220}" y="${Math.floor(at / side) * 150}" width="160" height="90"/></ownedElement>`,
    );
  }
  for (let at = 0; at < shapes * 2; at++) {
    const [from, to] = [at % shapes, (at * 7 + 3 + Math.floor(at / shapes)) % shapes];
    blocks.push(`<packagedElement xmi:type="uml:Dependency" xmi:id="d${at}" client="b${from}" supplier="b${to}"/>`);
    const at2 = (one: number) => `x="${(one % side) * 220 + 80}" y="${Math.floor(one / side) * 150 + 45}"`;
    drawn.push(
      `<ownedElement xmi:type="umldi:UMLEdge" xmi:id="e${at}" modelElement="d${at}" source="s${from}" target="s${to}"><waypoint ${at2(from)}/><waypoint ${at2(to)}/></ownedElement>`,
    );
  }
  return `<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:umldi="http://www.omg.org/spec/UML/20161101/UMLDI" xmlns:sysml="http://www.omg.org/spec/SysML/20181001/SysML"><uml:Model xmi:id="model" name="Drawn"><packagedElement xmi:type="uml:DataType" xmi:id="t" name="Metre"/>${blocks.join('')}</uml:Model>${marks.join('')}<umldi:UMLClassDiagram xmi:id="drawing" name="All blocks">${drawn.join('')}</umldi:UMLClassDiagram></xmi:XMI>`;
}

/** Tasks in three lines that lead on, and now and then across. */
function makeFlow(tasks: number): string {
  const out: string[] = [];
  for (let at = 0; at < tasks; at++) out.push(`<task id="t${at}" name="Step ${at}"/>`);
  for (let at = 0; at + 3 < tasks; at++) out.push(`<sequenceFlow id="f${at}" sourceRef="t${at}" targetRef="t${at + 3}"/>`);
  for (let at = 0; at + 8 < tasks; at += 5) out.push(`<sequenceFlow id="g${at}" sourceRef="t${at}" targetRef="t${at + 7}"/>`);
  return `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d"><process id="p" name="Flow">${out.join('')}</process></definitions>`;
}

/** Drawings in a browser: opened, moved and zoomed; and laid out here. */
export async function benchDrawn(): Promise<Row[]> {
  const data = mkdtempSync(join(tmpdir(), 'coomb-drawn-'));
  const profile = mkdtempSync(join(tmpdir(), 'coomb-page-'));
  const server = await startServer({ data, port: 0, host: '127.0.0.1', web });
  const options = new Options();
  options.setChromeBinaryPath('/usr/bin/chromium');
  options.addArguments('--headless', '--no-sandbox', '--disable-gpu', '--no-first-run', '--window-size=1280,943', `--user-data-dir=${profile}`);
  const driver = await new Builder().forBrowser('chrome').setChromeOptions(options).setChromeService(new ServiceBuilder('/usr/bin/chromedriver')).build();
  const rows: Row[] = [];
  try {
    await driver.manage().setTimeouts({ script: 60_000 });
    await driver.get('about:blank');
    const blank = await watch(driver, 'nothing');
    for (const shapes of [1_000, 5_000]) {
      const project = await bring(server.address, `drawn ${shapes}.xmi`, makeDrawn(shapes));
      const [drawing] = (await (await fetch(`${server.address}/api/projects/${project}/drawings`)).json()) as { id: string }[];
      const size = `${figure(shapes)} shapes of 3 lines, ${figure(shapes * 2)} lines between`;
      const opens: number[] = [];
      for (let run = 0; run < 5; run++) {
        // From the list of drawings, as people open one: what the first page of all loads is there.
        await driver.get(`${server.address}/p/${project}/shape/drawings`);
        await driver.wait(() => driver.executeScript<boolean>(`return document.body.innerText.includes('All blocks')`), 60_000);
        await driver.sleep(1_500);
        opens.push(
          await driver.executeAsyncScript<number>(`
            const done = arguments[arguments.length - 1];
            const start = performance.now();
            document.querySelector('a[href$="${drawing!.id}"]').click();
            const look = () => {
              const canvas = document.querySelector('[aria-roledescription="drawing"] canvas');
              const pixels = canvas && canvas.width > 0 && canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data;
              // Something else than the ground of the corner: shapes, not only paper.
              if (pixels && pixels[3] > 0 && pixels.some((value, at) => value !== pixels[at % 4])) return done(performance.now() - start);
              requestAnimationFrame(look);
            };
            requestAnimationFrame(look);`),
        );
      }
      rows.push({
        what: 'a drawing: opened from the list, until it is painted',
        size,
        runs: 5,
        median: medianOf(opens),
        ...(shapes === 1_000 && { goal: '≤ 500 ms' }),
      });
      await driver.sleep(1_000);
      for (const [what, move] of [
        ['moving', 'pan'],
        ['zooming', 'zoom'],
      ] as const) {
        const frames = await watch(driver, move);
        const base = { what: 'a blank page', median: quantile(blank, 0.95) };
        rows.push({
          what: `a drawing: 95 % of ${frames.length} frames while ${what}`,
          size,
          runs: 1,
          median: quantile(frames, 0.95),
          baseline: base,
          ...(shapes === 1_000 && { goal: '≤ 17 ms' }),
        });
        rows.push({
          what: `a drawing: longest frame while ${what}`,
          size,
          runs: 1,
          median: Math.max(...frames),
          baseline: { what: 'a blank page', median: Math.max(...blank) },
          ...(shapes === 1_000 && { goal: '≤ 50 ms' }),
        });
      }
    }

    for (const [tasks, goal] of [
      [200, '≤ 1 s'],
      [990, '≤ 4 s'],
    ] as const) {
      const project = await bring(server.address, `flow ${tasks}.bpmn`, makeFlow(tasks));
      const takes: number[] = [];
      for (let run = 0; run < 3; run++) {
        await driver.get(`${server.address}/p/${project}/shape/drawings/new?sort=overview`);
        await driver.wait(() => driver.executeScript<boolean>(`return document.querySelector('[aria-roledescription="drawing"]') !== null`), 60_000);
        const start = performance.now();
        await driver.executeScript(
          `const pick = document.querySelector('select[aria-label="Sort of drawing"]'); const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set; set.call(pick, 'flow'); pick.dispatchEvent(new Event('change', { bubbles: true }));`,
        );
        await driver.wait(
          () =>
            driver.executeScript<boolean>(
              `return document.body.innerText.includes('${tasks + 1} shapes') && document.querySelector('[aria-roledescription="drawing"]') !== null`,
            ),
          60_000,
        );
        takes.push(performance.now() - start);
      }
      rows.push({
        what: 'a flow: planned, laid out in a worker and shown',
        size: `${tasks + 1} nodes, ${figure(tasks - 3 + Math.ceil((tasks - 8) / 5))} lines`,
        runs: 3,
        median: medianOf(takes),
        goal,
      });
    }
  } finally {
    await driver.quit();
    await server.stop();
    for (const folder of [data, profile]) rmSync(folder, { recursive: true, force: true });
  }
  return rows;
}

/** A project of its own with one file in it. */
async function bring(address: string, name: string, text: string): Promise<string> {
  const json = { 'Content-Type': 'application/json' };
  const { id } = (await (await fetch(`${address}/api/projects`, { method: 'POST', headers: json, body: JSON.stringify({ name }) })).json()) as { id: string };
  const base = `${address}/api/projects/${id}`;
  const form = new FormData();
  form.set('file', new Blob([text]), name);
  const entry = (await (await fetch(`${base}/tray`, { method: 'POST', body: form })).json()) as { id: string };
  const wish = JSON.stringify({ collection: { name: 'Drawn', prefix: 'D', holds: 'model' } });
  const { job } = (await (await fetch(`${base}/tray/${entry.id}/import`, { method: 'POST', headers: json, body: wish })).json()) as { job: string };
  for (;;) {
    const { state, message } = (await (await fetch(`${base}/jobs/${job}`)).json()) as { state: string; message: string };
    if (state === 'done') return id;
    if (state !== 'running') throw new Error(message);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** Times between frames over two seconds of turning the wheel over the drawing: to move it, to zoom it, or of doing nothing. */
function watch(driver: WebDriver, move: 'pan' | 'zoom' | 'nothing'): Promise<number[]> {
  return driver.executeAsyncScript<number[]>(`
    const done = arguments[arguments.length - 1];
    const host = document.querySelector('[aria-roledescription="drawing"]');
    const box = host && host.getBoundingClientRect();
    const gaps = [];
    const start = performance.now();
    let last = start;
    const tick = (now) => {
      gaps.push(now - last);
      last = now;
      const part = (now - start) / 2000;
      if (part >= 1) return done(gaps.slice(2));
      if (host) {
        const turn = { bubbles: true, cancelable: true, clientX: box.left + box.width / 2, clientY: box.top + box.height / 2 };
        const sway = Math.sin(part * 12);
        if (${JSON.stringify(move)} === 'pan') host.dispatchEvent(new WheelEvent('wheel', { ...turn, deltaX: 24 * sway, deltaY: 18 * Math.cos(part * 9) }));
        else host.dispatchEvent(new WheelEvent('wheel', { ...turn, ctrlKey: true, deltaY: -14 * sway }));
      }
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);`);
}
