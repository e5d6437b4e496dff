import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { finderIn, type MadeProject, makeProject } from './support/project.js';
import { removeData, type Started, startCoomb } from './support/server.js';

describe('looking at a project', () => {
  let coomb: Started;
  let ada: Person;
  let base = '';
  let page = '';
  let idOf: (reference: string) => string;
  const rows = 200;

  let call: MadeProject['call'];
  /** What a column says from top to bottom. */
  const column = async (shown: object, more: object = {}) =>
    (
      await call<{ rows: { cells: string[] }[] }>('/register', { what: { kinds: ['requirement'], columns: [{ id: 'c', shown }], ...more }, limit: 500 })
    ).rows.map(({ cells }) => cells[0]);
  const priority = { sort: 'field', of: 'priority' };
  const cell = (row: number, at: number) => ada.driver.findElement(By.id(`cell-${row}-${at}`));
  const textAt = (row: number, at: number) =>
    ada.driver.executeScript<string | null>('return document.getElementById(arguments[0])?.innerText ?? null', `cell-${row}-${at}`);
  const paste = (text: string) =>
    ada.driver.executeScript(
      `const data = new DataTransfer();
       data.setData('text/plain', arguments[0]);
       document.querySelector('[role="grid"]').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`,
      text,
    );
  const until = (holds: () => Promise<boolean>, what: string) => ada.driver.wait(holds, 20_000, what);

  beforeAll(async () => {
    coomb = await startCoomb();
    const project = await makeProject(coomb.address, 'Looked at');
    ({ base, page, call } = project);
    const csv = `Reference,Title,Kind,Priority\n${Array.from({ length: rows }, (_, at) => `REQ-${String(at + 1).padStart(3, '0')},Wish ${at + 1},Requirement,Low`).join('\n')}\n`;
    await project.handIn('wishes.csv', csv, { collection: { name: 'Wishes', prefix: 'REQ', holds: 'specification' } });
    const find = finderIn(await project.outline());
    idOf = find.idOf;
    ada = await Person.arrive('Ada Wick');
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    removeData(coomb.data);
  });

  it('pastes a range of a spreadsheet over 200 items, most of them out of sight, with one undo', async () => {
    await ada.open(`${page}/shape/register?kind=requirement`);
    await ada.see('Wish 1');
    await (await cell(0, 1)).click();
    await paste(`${Array.from({ length: rows }, (_, at) => `Renamed ${at + 1}`).join('\n')}\n`);
    await until(async () => (await column({ sort: 'title' })).at(-1) === `Renamed ${rows}`, 'the last row is written');
    expect(await column({ sort: 'title' })).toEqual(Array.from({ length: rows }, (_, at) => `Renamed ${at + 1}`));
    await ada.see('Renamed 1');
    await ada.hold(Key.CONTROL, 'z');
    await until(async () => (await column({ sort: 'title' })).at(-1) === `Wish ${rows}`, 'all of it is taken back');
    expect(new Set((await column({ sort: 'title' })).map((title) => title!.split(' ')[0]))).toEqual(new Set(['Wish']));
    await ada.see('Wish 1');
  });

  it('writes in cells by keys: typed values, refusals where they stand, fill down', async () => {
    await (await cell(0, 3)).click();
    await paste('High\nNonsense\nMedium');
    await ada.see('1 refused');
    expect((await column(priority)).slice(0, 4)).toEqual(['High', 'Low', 'Medium', 'Low']);
    const refused = await ada.driver.findElement(By.css('#cell-1-3 [role="alert"]'));
    expect([await refused.getText(), await refused.getAttribute('title')]).toEqual(['Nonsense', expect.stringContaining('Nonsense')]);
    await (await cell(0, 3)).click();
    await ada.hold(Key.SHIFT, Key.ARROW_DOWN);
    await ada.hold(Key.SHIFT, Key.ARROW_DOWN);
    await ada.hold(Key.CONTROL, 'd');
    await until(async () => (await column(priority))[2] === 'High', 'the range is filled');
    expect((await column(priority)).slice(0, 4)).toEqual(['High', 'High', 'High', 'Low']);
    await until(async () => (await ada.driver.findElements(By.css('#cell-1-3 [role="alert"]'))).length === 0, 'the refusal is gone');
  });

  it('groups, sums up and hides by the menus of the heads, opened by mouse and by key, and looks elsewhere with the same definition', async () => {
    const menu = (name: string) => ada.find(`//*[@role="menuitem"][starts-with(normalize-space(), ${JSON.stringify(name)})]`, `what can be done: ${name}`);
    await ada.open(`${page}/shape/register?kind=requirement`);
    await ada.see('Wish 1');
    await ada.press('Do with Priority');
    await (await menu('Group by it')).click();
    await until(async () => (await ada.driver.findElements(By.css('.row.is-group'))).length > 0, 'rows stand in groups');
    await (await cell(1, 1)).click();
    await ada.hold(Key.ALT, Key.ARROW_DOWN);
    await menu('Sum up');
    await ada.type(Key.END, Key.ARROW_RIGHT);
    await (await menu('different')).click();
    await ada.see(`${rows} different`);
    await ada.press('Do with Priority');
    await (await menu('Hide it')).click();
    await until(async () => (await ada.driver.findElements(By.css('[data-menu="field-priority"]'))).length === 0, 'the column is hidden');
    expect((await ada.driver.findElements(By.css('.row.is-group'))).length).toBeGreaterThan(0);
    await ada.press('Where everywhere');
    await (await ada.find('//label[normalize-space()="Wishes"]', 'the collection')).click();
    await ada.see('in Wishes');
    await ada.press('Kept places');
    await ada.fill('Name to keep this view under', 'The wishes');
    await ada.type(Key.ENTER);
    await ada.see('Kept for everybody');
    await ada.open(`${page}/shape/register?kind=testCase`);
    await ada.press('Where everywhere');
    await ada.press('Kept places (1)');
    await ada.press('The wishes');
    await ada.see('No item passes');
    await ada.open(`${page}/shape/register?kind=requirement`);
    await ada.see('Wish 1');
    await (await cell(0, 3)).click();
  });

  it('keeps a condition as a lens, and looks through it in one view after the other', async () => {
    await ada.press('Condition');
    await ada.choose('What of it', 'Priority');
    await (await ada.find('//label[normalize-space()="High"]', 'the value High')).click();
    await ada.press('Add the condition');
    await ada.see('whose Priority is High');
    await ada.see('3 items');
    await ada.press('Keep as a lens…');
    await ada.see('What passes these conditions');
    await ada.type('Urgent wishes');
    await ada.press('Keep');
    await ada.see('through Urgent wishes');
    for (const [path, shows] of [
      ['', '3 items'],
      ['shape', '3 of 200 rows are seen through the lens.'],
      ['link/all', 'All links'],
      ['shape/register?kind=requirement', '3 items'],
    ] as const) {
      await ada.open(`${page}/${path}`);
      await ada.see('through Urgent wishes');
      await ada.see(shows);
    }
    await ada.see('Wish 3');
    await ada.seeNothingOf('Wish 4');
    await ada.press('Look at everything');
    await ada.see(`${rows} items`);
  });

  it('colours items by what they say, here and on the section', async () => {
    await ada.press('Colour key…');
    await ada.choose('Coloured by', 'Priority');
    await ada.press('Keep and colour');
    await ada.see('by Priority');
    const fillOf = async (row: number) => (await ada.driver.findElement(By.css(`#cell-${row}-0 span`))).getCssValue('background-color');
    await until(async () => (await ada.driver.findElements(By.css('#cell-0-0 span'))).length > 0, 'references have fills');
    expect(await fillOf(0)).toBe(await fillOf(2));
    expect(await fillOf(0)).not.toBe(await fillOf(3));
    await ada.press('by Priority');
    await ada.see('197');
    await ada.type(Key.ESCAPE);
    await ada.press('Colour by state');
    await ada.see('by state');
  });

  it('looks at it as of an earlier change, where nothing can be changed, and comes back by a key', async () => {
    await ada.open(`${page}/shape/register?kind=requirement&asOf=1`);
    await ada.see('as of change 1');
    await until(async () => (await textAt(0, 3)) === 'Low', 'the priority is what it was');
    const before = await column(priority);
    await (await cell(0, 1)).click();
    await ada.type(Key.F2);
    await ada.see('nothing can be written there');
    expect(await column(priority)).toEqual(before);
    expect((await column({ sort: 'title' }))[0]).toBe('Wish 1');
    await ada.hold(Key.ALT, 'n');
    await until(async () => (await textAt(0, 3)) === 'High', 'the priority is what it is');
    await ada.see('now');
  });

  it('compares an earlier change with now, by words, and saves what is different', async () => {
    await call('/cells', { cells: [{ item: (await call<{ id: string[]; title: string[] }>('/outline')).id[0], column: { sort: 'title' }, text: 'Wish one' }] });
    await ada.open(`${page}/changes`);
    await ada.press('Compare two moments');
    await ada.open(`${page}/changes/between?since=1`);
    await ada.see('3 changed');
    await ada.press('3 changed');
    await ada.see('Wish one');
    const marks = await ada.driver.executeScript<string[]>(
      "return [...document.querySelectorAll('del, ins')].map((one) => one.tagName + ' ' + one.textContent.trim())",
    );
    expect(marks).toEqual(expect.arrayContaining(['DEL 1', 'INS one', 'DEL Low', 'INS High']));
    await ada.choose('Grouped by', 'by what became of it');
    await ada.see('Changed 3');
    const text = await (
      await fetch(`${base}/compared/csv`, { method: 'POST', body: '{"since":1,"did":"changed"}', headers: { 'Content-Type': 'application/json' } })
    ).text();
    expect(text.split('\n').filter((line) => line.includes('Wish one'))).not.toEqual([]);
  });

  it('marks the same in the text that is read, and takes the marks away again', async () => {
    const [collection] = (await call<{ collections: string[] }>('/outline')).collections;
    await ada.open(`${page}/shape/${collection}?since=1`);
    await ada.see('changed');
    const marks = () =>
      ada.driver.executeScript<string[]>(
        'return [...document.querySelectorAll("[role=article] del, [role=article] ins")].map((one) => one.textContent.trim())',
      );
    await until(async () => (await marks()).includes('one'), 'the new word is marked');
    expect(await marks()).toEqual(expect.arrayContaining(['1', 'one', 'Low', 'High']));
    await ada.choose('Mark what is different since', 'no marks');
    await until(async () => (await marks()).length === 0, 'no word is marked');
    await ada.see('Wish one');
  });

  it('compares figures of two moments, and counts readiness through the lens', async () => {
    await ada.open(`${page}/changes/between?since=1&what=figures`);
    await ada.see('No figure is different');
    await ada.open(`${page}/check`);
    await ada.see('Every requirement is verified');
    const open = async () => ada.driver.executeScript<string>('return document.querySelector("main")?.innerText ?? document.body.innerText');
    expect(await open()).toContain(`of ${rows}`);
    await ada.type('\\');
    await ada.see('through Urgent wishes');
    await ada.see('Figures of what is seen through “Urgent wishes” only');
    await until(async () => (await open()).includes('of 3') && !(await open()).includes(`of ${rows}`), 'only what is seen is counted');
    await ada.press('Look at everything');
  });

  it('did all that without a complaint of the browser', async () => {
    expect(await ada.complaints()).toEqual([]);
  });

  it('uses rows and heads again as one scrolls: each says what belongs where it stands, and leads there', async () => {
    const scrollTo = (selector: string, top: number) =>
      ada.driver.executeScript(
        `let box = document.querySelector(arguments[0]); while (getComputedStyle(box).overflowY !== 'auto') box = box.parentElement; box.scrollTop = arguments[1];`,
        selector,
        top,
      );
    /** What stands from top to bottom, by where it is drawn. */
    const standing = (selector: string, says: string) =>
      ada.driver.executeScript<string[]>(
        `return [...document.querySelectorAll(arguments[0])].map((one) => [one.getBoundingClientRect().top, one.querySelector(arguments[1])?.textContent ?? ''])
          .sort((a, b) => a[0] - b[0]).map(([, text]) => text);`,
        selector,
        says,
      );
    const followEachOther = (found: string[], at: number) => {
      const numbers = found.map((one) => Number(/REQ-(\d+)/.exec(one)?.[1] ?? Number.NaN));
      return numbers.length > 10 && numbers.includes(at) && numbers.every((one, place) => place === 0 || one === numbers[place - 1]! + 1);
    };
    await ada.open(`${page}/shape/register?kind=requirement`);
    await until(async () => (await textAt(0, 0)) === 'REQ-001', 'the register');
    for (const row of [40, 150, 151, 120, 20]) {
      await scrollTo('[role="grid"]', row * 27);
      await until(async () => followEachOther(await standing('[role="grid"] .row', '[data-column="0"]'), row + 2), `rows around ${row}`);
      expect(await textAt(row + 1, 1)).toBe(`Wish ${row + 2}`);
    }
    await (await ada.driver.findElement(By.css('[role="grid"] a[data-reference="REQ-025"]'))).click();
    await until(async () => (await ada.driver.getCurrentUrl()).includes('item=REQ-025'), 'the sheet of the item that was pressed');
    const [from, to] = ['REQ-002', 'REQ-001'].map((reference) => idOf(reference));
    await call('/links', { links: [{ linkKind: 'derives', from, to }] });
    await ada.open(`${page}/link/matrix`);
    await ada.find('//canvas[@role="grid"]', 'cells');
    for (const row of [60, 170, 30]) {
      await scrollTo('canvas[role="grid"]', row * 22);
      await until(async () => followEachOther(await standing('[aria-label="Rows"] .line', '.reference'), row + 2), `heads around ${row}`);
    }
    await (await ada.driver.findElement(By.css('[aria-label="Rows"] [data-reference="REQ-040"]'))).click();
    await until(async () => (await ada.driver.getCurrentUrl()).includes('item=REQ-040'), 'the sheet of the head that was pressed');
  });
});
