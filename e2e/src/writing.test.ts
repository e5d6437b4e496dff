import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { removeData, type Started, startCoomb } from './support/server.js';

const PNG = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');

/** Requirements written one after another, in the real page, mostly from the keyboard. */
describe('writing', () => {
  let coomb: Started;
  let ada: Person;
  let project = '';
  let collection = '';

  const api = async <T>(path: string, body?: object): Promise<T> => {
    const init = body && { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
    return (await (await fetch(`${coomb.address}/api/projects${path}`, init)).json()) as T;
  };
  interface Written {
    reference: string;
    title: string;
    html: string;
    kind: string;
    id: string;
  }
  const written = async () => (await api<{ items: Written[] }>(`/${project}/collections/${collection}/reading`)).items;
  /** What is stored, as soon as it says what is waited for. */
  const stored = async (pick: (items: Written[]) => unknown, value: unknown) =>
    expect.poll(async () => pick(await written()), { timeout: 20_000 }).toEqual(value);

  beforeAll(async () => {
    coomb = await startCoomb();
    ada = await Person.arrive('Ada Wick');
    project = (await api<{ id: string }>('', { name: 'Writing weir' })).id;
    collection = (await api<{ id: string }>(`/${project}/collections`, { name: 'Requirements', holds: 'specification', prefix: 'REQ', kind: 'requirement' }))
      .id;
    await ada.open(`${coomb.address}/p/${project}/shape/${collection}`);
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    if (coomb) removeData(coomb.data);
  });
  const editor = () => ada.find('//*[@contenteditable="true"][@aria-label="Text"]', 'the editor');

  it('writes one item after another without the mouse', async () => {
    await ada.press('Write the first item');
    await ada.find('//input[@aria-label="Title"]', 'the title');
    await ada.type('Close the gate', Key.TAB);
    await (await editor()).sendKeys('The gate shall close. It shall tell the desk.');
    await ada.hold(Key.ALT, Key.ENTER);
    await stored((items) => items.map(({ title }) => title), ['Close the gate']);
    // The field of the next one is empty and has the caret.
    await ada.driver.wait(
      async () => ada.driver.executeScript('const e = document.activeElement; return e.getAttribute("aria-label") === "Title" && e.value === ""'),
      20_000,
      'no empty title to go on with',
    );
    await ada.type('Open the gate');
    await ada.hold(Key.CONTROL, Key.ENTER);
    await stored((items) => items.map(({ reference, title }) => `${reference} ${title}`), ['REQ-001 Close the gate', 'REQ-002 Open the gate']);
    await ada.find('//*[@role="article"][@aria-current="true"][contains(@aria-label, "Open the gate")]', 'the new item, marked');
    // Keys are the page's again once nothing is written in any more.
    await ada.driver.wait(
      async () => ada.driver.executeScript('return !document.activeElement.matches("input, textarea, select, [contenteditable=true]")'),
      20_000,
      'the editor still has the keys',
    );
    await ada.hold(Key.ALT, Key.ARROW_RIGHT);
    await expect.poll(async () => (await api<{ parent: number[] }>(`/${project}/outline`)).parent, { timeout: 20_000 }).toEqual([-1, 0]);
    await ada.hold(Key.ALT, Key.ARROW_LEFT);
    await expect.poll(async () => (await api<{ parent: number[] }>(`/${project}/outline`)).parent, { timeout: 20_000 }).toEqual([-1, -1]);
  });

  it('splits an item at the caret and joins the two again', async () => {
    await ada.type(Key.ARROW_UP, Key.ENTER);
    await (await editor()).click();
    await ada.hold(Key.CONTROL, Key.HOME);
    for (let step = 0; step < 'The gate shall close.'.length; step++) await ada.type(Key.ARROW_RIGHT);
    await ada.driver.actions().keyDown(Key.CONTROL).keyDown(Key.SHIFT).sendKeys(Key.ENTER).keyUp(Key.SHIFT).keyUp(Key.CONTROL).perform();
    await stored(
      (items) => items.map(({ reference, html }) => `${reference} ${html}`),
      ['REQ-001 <p>The gate shall close.</p>', 'REQ-003 <p>It shall tell the desk.</p>', 'REQ-002 '],
    );
    await ada.see('REQ-003 was split off.');
    await ada.find('//*[@role="article"][@aria-current="true"][starts-with(@aria-label, "REQ-003")]', 'the second half, marked');
    await ada.type(Key.ARROW_UP, 'j');
    await ada.see('REQ-003 is part of REQ-001 now');
    await stored(
      (items) => items.map(({ reference, html }) => `${reference} ${html}`),
      ['REQ-001 <p>The gate shall close.</p><p>It shall tell the desk.</p>', 'REQ-002 '],
    );
    await ada.hold(Key.CONTROL, 'z');
    await stored((items) => items.length, 3);
    await ada.hold(Key.CONTROL, 'z');
    await stored((items) => items.map(({ html }) => html), ['<p>The gate shall close. It shall tell the desk.</p>', '']);
  });

  it('puts in a table, a formula, a link to an item and a picture with its caption, and stores them all', async () => {
    await ada.find('//*[@role="article"][starts-with(@aria-label, "REQ-002")]', 'the item').then((row) => row.click());
    await ada.type(Key.ENTER);
    await (await editor()).click();
    await ada.type('Flow ');
    await ada.press('Put in');
    await ada.press('Formula');
    await ada.find('//input[@aria-label="Formula, as TeX"]', 'the field of the formula');
    await ada.driver.wait(
      async () => ada.driver.executeScript('return document.activeElement.getAttribute("aria-label") === "Formula, as TeX"'),
      20_000,
      'the field has no caret',
    );
    await ada.type('\\frac{V}{t}');
    await ada.find('//*[@role="img"][@aria-label="The formula"]//*[local-name()="mfrac"]', 'the formula as it will be');
    await ada.type(Key.ENTER, ' as in ');
    await ada.press('Put in');
    await ada.press('Link to an item or a page');
    await ada.driver.wait(
      async () => ada.driver.executeScript('return document.activeElement.getAttribute("aria-label") === "Link to"'),
      20_000,
      'the field has no caret',
    );
    await ada.type('REQ-001');
    await ada.find('//*[@role="option"][contains(., "Close the gate")]', 'the item to link to');
    await ada.type(Key.ENTER, Key.ENTER);
    await ada.press('Put in');
    await ada.press('Table');
    await ada.find('//*[@contenteditable="true"]//table', 'the table');
    await ada.type('Gate', Key.TAB, 'Travel');
    await ada.press('Remove row');
    await ada.press('Remove column');
    const folder = mkdtempSync(join(tmpdir(), 'coomb-picture-'));
    writeFileSync(join(folder, 'Gate from below.png'), PNG);
    const picker = ada.driver.findElement({ css: 'input[type=file][aria-label="Pictures to put in"]' });
    await picker.sendKeys(join(folder, 'Gate from below.png'));
    await ada.find('//*[@contenteditable="true"]//figure/img[starts-with(@src, "/api/")]', 'the picture in the text');
    await ada.type('Seen from below');
    removeData(folder);
    await ada.hold(Key.CONTROL, Key.ENTER);
    await expect
      .poll(async () => (await written()).find(({ reference }) => reference === 'REQ-002')!.html, { timeout: 20_000 })
      .toContain('<figcaption>Seen from below</figcaption>');
    const { html } = (await written()).find(({ reference }) => reference === 'REQ-002')!;
    const first = (await written())[0]!;
    expect(html).toContain('<mfrac><mi>V</mi><mi>t</mi></mfrac>');
    expect(html).toContain(`<a href="coomb-item:${first.id}">REQ-001</a>`);
    expect(html).toMatch(/<img src="\/api\/projects\/[^"]+" alt="Gate from below" \/>/);
    // The words of the link open the sheet of the item, beside what is read.
    await (await ada.find('//a[@data-item]', 'the link')).click();
    await ada.see('Where it comes from');
    expect(new URL(await ada.driver.getCurrentUrl()).searchParams.get('item')).toBe(first.id);
    expect(await ada.complaints()).toEqual([]);
    await ada.type(Key.ESCAPE);
  });

  it('makes several items of another kind at once', async () => {
    await ada.find('//*[@role="article"][starts-with(@aria-label, "REQ-001")]', 'the item').then((row) => row.click());
    await ada.hold(Key.CONTROL, 'a');
    await ada.see('2 chosen');
    await ada.choose('Make them of another kind', 'need');
    await ada.see('2 items changed.');
    await stored((items) => items.map(({ kind }) => kind), ['need', 'need']);
  });
});
