import { By, Key, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { removeData, type Started, startCoomb } from './support/server.js';

interface Links {
  from: number[];
  to: number[];
}

const ROWS = 300;

describe('linking by hand, among hundreds of rows', () => {
  let coomb: Started;
  let ada: Person;
  let base = '';
  let bench = '';

  const call = async <T>(path: string, body?: unknown): Promise<T> => {
    const init = body === undefined ? {} : { method: 'POST', body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
    return (await fetch(`${base}${path}`, init)).json() as Promise<T>;
  };
  /** Links as "DES-003 REQ-010", in the order they were made. */
  const readLinks = async (): Promise<string[]> => {
    const outline = await call<{ node: number[]; reference: string[] }>('/outline');
    const referenceOf = new Map(outline.node.map((node, row) => [node, outline.reference[row]!]));
    const links = await call<Links>('/links');
    return links.from.map((from, i) => `${referenceOf.get(from)} ${referenceOf.get(links.to[i]!)}`);
  };
  const row = async (reference: string) => ada.driver.findElement(By.css(`[role="option"][data-reference="${reference}"]`));
  /** Scrolls, again where the bench itself still scrolls to what was linked last. */
  const scroll = async (side: string, top: number) => {
    const list = `document.querySelector('[role="listbox"][aria-label="${side}"]')`;
    for (let still = 0, tries = 0; still < 3 && tries < 40; still++, tries++) {
      if ((await ada.driver.executeScript(`return Math.abs(${list}.scrollTop - arguments[0])`, top)) as number) still = 0;
      await ada.driver.executeScript(`${list}.scrollTop = arguments[0]`, top);
      await ada.driver.sleep(120);
    }
  };

  beforeAll(async () => {
    coomb = await startCoomb();
    const made = (await (
      await fetch(`${coomb.address}/api/projects`, {
        method: 'POST',
        body: '{"name":"Bench"}',
        headers: { 'Content-Type': 'application/json' },
      })
    ).json()) as { id: string };
    base = `${coomb.address}/api/projects/${made.id}`;
    for (const [name, holds, prefix, kind] of [
      ['Requirements', 'specification', 'REQ', 'requirement'],
      ['Design', 'model', 'DES', 'component'],
    ]) {
      const { id } = await call<{ id: string }>('/collections', { name, holds, prefix, kind });
      const rows = Array.from(
        { length: ROWS },
        (_, i) => `${prefix}-${String(i + 1).padStart(3, '0')},${name} number ${i + 1},${kind === 'requirement' ? 'Requirement' : 'Component'}`,
      );
      const form = new FormData();
      form.set('file', new Blob([`Reference,Title,Kind\n${rows.join('\n')}\n`]), `${name}.csv`);
      const entry = (await (await fetch(`${base}/tray`, { method: 'POST', body: form })).json()) as { id: string };
      const { job } = await call<{ job: string }>(`/tray/${entry.id}/import`, { collection: { id } });
      for (;;) {
        const { state, message } = await call<{ state: string; message: string }>(`/jobs/${job}`);
        if (state === 'done') break;
        if (state !== 'running') throw new Error(message);
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
    }
    bench = `${coomb.address}/p/${made.id}/link`;
    ada = await Person.arrive('Ada Wick');
    await ada.open(bench);
    await ada.see('REQ-003');
    await ada.see('DES-003');
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    removeData(coomb.data);
  });

  const dragged: string[] = [];
  const dragAndRead = async (from: WebElement, to: WebElement, expected: string) => {
    await ada.drag(from, to);
    dragged.push(expected);
    await ada.driver.wait(async () => (await readLinks()).length === dragged.length, 20_000, `no link came of dragging ${expected}`);
    expect(await readLinks()).toEqual(dragged);
  };

  it.each([
    ['at the top', 0, 0, 'REQ-003', 'DES-003'],
    ['one side scrolled', 0, 1400, 'REQ-006', 'DES-055'],
    ['both scrolled, not by whole rows', 2813, 1409, 'REQ-106', 'DES-060'],
    ['near the end', 7600, 7700, 'REQ-285', 'DES-290'],
  ])('links what is under the pointer: %s', async (_, left, right, requirement, component) => {
    await scroll('Requirements', left);
    await scroll('Design', right);
    await ada.driver.sleep(300);
    await dragAndRead(await row(requirement), await row(component), `${component} ${requirement}`);
  });

  it('links what is under the pointer from right to left, and at another zoom', async () => {
    await ada.zoom(1.25);
    await scroll('Requirements', 560);
    await scroll('Design', 2800);
    await ada.driver.sleep(300);
    await dragAndRead(await row('DES-105'), await row('REQ-024'), 'DES-105 REQ-024');
    await ada.zoom(1);
  });

  it('shows while dragging which item would be linked, and says so to screen readers', async () => {
    await scroll('Requirements', 0);
    await scroll('Design', 0);
    await ada.driver.sleep(300);
    const [from, to] = [await row('REQ-002'), await row('DES-007')];
    const actions = () => ada.driver.actions({ async: true });
    await actions().move({ origin: from }).press().move({ origin: from, x: 15, y: 5, duration: 60 }).move({ origin: to, duration: 200 }).perform();
    await ada.driver.sleep(200);
    const spoken = await ada.driver.executeScript<string>("return [...document.querySelectorAll('[aria-live]')].map((one) => one.textContent).join(' ')");
    expect(spoken).toContain('REQ-002 is over DES-007.');
    expect(spoken).not.toMatch(/[Dd]raggable item/);
    const colours = await ada.driver.executeScript<string[]>(
      "return ['DES-006', 'DES-007', 'DES-008'].map((one) => getComputedStyle(document.querySelector('[data-reference=\"' + one + '\"]')).backgroundColor)",
    );
    expect(colours[0]).toBe(colours[2]);
    expect(colours[1]).not.toBe(colours[0]);
    // A wheel turn between the last move and the release: what counts is what lies there then.
    await scroll('Design', 28 * 5);
    await ada.driver.sleep(300);
    await actions().release().perform();
    dragged.push('DES-012 REQ-002');
    await ada.driver.wait(async () => (await readLinks()).length === dragged.length, 20_000, 'no link came of it');
    expect(await readLinks()).toEqual(dragged);
  });

  it('links nothing when dropped on nothing', async () => {
    const actions = ada.driver.actions({ async: true });
    const from = await row('REQ-004');
    await actions.move({ origin: from }).press().move({ origin: from, x: 20, y: 5, duration: 60 }).move({ x: 640, y: 60, duration: 100 }).release().perform();
    await ada.driver.sleep(500);
    expect(await readLinks()).toEqual(dragged);
  });

  it('answers to keys on arrival, and again after a choice', async () => {
    await ada.open(`${bench}?left=&right=`);
    await ada.see('REQ-001');
    await ada.type(Key.ARROW_DOWN, Key.ARROW_RIGHT, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ENTER);
    dragged.push('DES-002 REQ-001');
    await ada.driver.wait(async () => (await readLinks()).length === dragged.length, 20_000, 'the keys were dead on arrival');
    await ada.choose('Which items on the left', 'without a link to the right');
    await ada.driver.sleep(400);
    await ada.type(Key.ARROW_LEFT, 'n', Key.ENTER);
    await ada.driver.wait(async () => (await readLinks()).length === dragged.length + 1, 20_000, 'the keys were dead after a choice');
    expect((await readLinks()).at(-1)).toBe('DES-002 REQ-004');
  });
});
