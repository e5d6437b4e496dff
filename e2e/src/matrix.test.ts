import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { finderIn, type MadeProject, makeProject, readLinks } from './support/project.js';
import { removeData, type Started, startCoomb } from './support/server.js';

describe('a trace matrix', () => {
  let coomb: Started;
  let ada: Person;
  let page = '';
  let call: MadeProject['call'];
  let find: ReturnType<typeof finderIn>;

  const expectLinks = async (expected: string[]) => {
    await ada.driver.wait(async () => (await readLinks(call)).length === expected.length, 20_000, `waited for ${expected.join('; ')}`);
    expect(await readLinks(call)).toEqual(expected.toSorted());
  };
  const cells = () => ada.find('//canvas[@role="grid"]', 'the cells');
  /** What a screen reader is told of the cell that one stands on. */
  const stands = () => ada.driver.executeScript<string>('return document.getElementById("matrix-cell").textContent');
  const standsOn = async (says: string) => {
    await ada.driver.wait(async () => (await stands()) === says, 20_000, `waited for the cell "${says}"`);
  };

  beforeAll(async () => {
    coomb = await startCoomb();
    const project = await makeProject(coomb.address, 'Crossed');
    ({ page, call } = project);
    const { handIn } = project;
    const csv = (prefix: string, kind: string, count: number) =>
      `Reference,Title,Kind\n${Array.from({ length: count }, (_, at) => `${prefix}-00${at + 1},${kind} number ${at + 1},${kind}`).join('\n')}\n`;
    await handIn('needs.csv', csv('NEED', 'Need', 2), { collection: { name: 'Needs', prefix: 'NEED', holds: 'specification' } });
    await handIn('wishes.csv', csv('REQ', 'Requirement', 4), { collection: { name: 'Wishes', prefix: 'REQ', holds: 'specification' } });
    await handIn('tests.csv', csv('TC', 'Test case', 5), { collection: { name: 'Tests', prefix: 'TC', holds: 'tests' } });
    find = finderIn(await project.outline());
    const links = [
      ['derives', 'REQ-001', 'NEED-001'],
      ['derives', 'REQ-002', 'NEED-001'],
      ['verifies', 'TC-001', 'REQ-001'],
      ['verifies', 'TC-002', 'REQ-002'],
    ].map(([linkKind, from, to]) => ({ linkKind, from: find.idOf(from!), to: find.idOf(to!) }));
    await call('/links', { links });
    ada = await Person.arrive('Ada Wick');
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    removeData(coomb.data);
  });

  const made = ['REQ-001 derives NEED-001', 'REQ-002 derives NEED-001', 'TC-001 verifies REQ-001', 'TC-002 verifies REQ-002'];

  it('marks needs by the tests of what was derived from them, and tells the paths', async () => {
    await ada.open(`${page}/link/matrix?rows=${find.collectionOf('NEED-001')}&columns=${find.collectionOf('TC-001')}`);
    await ada.see('No kind of link joins what is shown.');
    await ada.press('Mark');
    await ada.press('leads to → is verified by');
    await ada.see('2 marks');
    await ada.type(Key.ESCAPE);
    await (await cells()).click();
    await ada.type(Key.HOME, Key.ARROW_UP, Key.ARROW_UP);
    await standsOn('NEED-001 × TC-001: leads to → is verified by');
    await ada.type(Key.ARROW_RIGHT);
    await standsOn('NEED-001 × TC-002: leads to → is verified by');
    await ada.type(Key.ARROW_DOWN);
    await standsOn('NEED-002 × TC-002: no link');
    const box = await (await cells()).getRect();
    await ada.driver
      .actions()
      .move({ x: Math.round(box.x + 11), y: Math.round(box.y + 11) })
      .perform();
    await ada.see('NEED-001 leads to REQ-001 is verified by TC-001');
  });

  it('links each of several rows with each of several columns, and takes away what a rectangle holds', async () => {
    await ada.open(`${page}/link/matrix?rows=${find.collectionOf('REQ-001')}&columns=${find.collectionOf('TC-001')}`);
    await ada.see('2 links');
    await (await cells()).click();
    await ada.type(Key.HOME, Key.ARROW_UP, Key.ARROW_UP, Key.ARROW_UP, Key.ARROW_UP);
    await standsOn('REQ-001 × TC-001: is verified by');
    await ada.hold(Key.SHIFT, Key.ARROW_DOWN);
    await ada.hold(Key.SHIFT, Key.ARROW_RIGHT);
    await ada.hold(Key.SHIFT, Key.ARROW_RIGHT);
    await ada.see('2 × 3 cells: 2 marks');
    await ada.type(Key.ENTER);
    await ada.see('makes 4 links');
    await ada.see('2 refused');
    await ada.press('Make 4 links');
    const pairs = ['TC-001 verifies REQ-002', 'TC-002 verifies REQ-001', 'TC-003 verifies REQ-001', 'TC-003 verifies REQ-002'];
    await expectLinks([...made, ...pairs]);
    await ada.see('2 × 3 cells: 6 marks');
    await ada.type(Key.DELETE);
    await ada.see('Take 6 links away');
    await ada.press('Remove 6 links');
    await expectLinks(['REQ-001 derives NEED-001', 'REQ-002 derives NEED-001']);
    await ada.hold(Key.CONTROL, 'z');
    await expectLinks([...made, ...pairs]);
  });

  it('confirms the suspect links of a rectangle, with a reason that is kept', async () => {
    await call('/cells', { cells: [{ item: find.idOf('REQ-001'), column: { sort: 'title' }, text: 'Reworded' }] });
    await (await cells()).click();
    await ada.hold(Key.CONTROL, 'a');
    await ada.see('3 suspect');
    await ada.press('Confirm…');
    await ada.see('3 suspect links hold');
    await ada.type('Looked through');
    await ada.press('Confirm 3 links');
    await ada.driver.wait(
      async () =>
        (
          await call<{ links: { suspect: boolean }[] }[]>('/matrix/cells', { cells: [{ row: find.idOf('REQ-001'), column: find.idOf('TC-001') }] })
        )[0]!.links.every((one) => !one.suspect),
      20_000,
    );
    await ada.see('Confirmed: 3 links.');
  });

  it('finds lines by their words, orders by number and gathers along the diagonal', async () => {
    const field = await ada.driver.findElement(By.css('input[aria-label="Find a column"]'));
    await field.sendKeys('number 5');
    await ada.driver.wait(async () => (await stands()).includes('× TC-005:'), 20_000, 'the column is found');
    await field.sendKeys(Key.BACK_SPACE, '99');
    await ada.driver.wait(async () => (await field.getAttribute('aria-invalid')) === 'true', 20_000, 'nothing is called so');
    const heads = async () =>
      ada.driver.executeScript<string[]>('return [...document.querySelectorAll(\'[aria-label="Rows"] .reference\')].map((one) => one.textContent.trim())');
    await ada.choose('In which order', 'most links first');
    await ada.driver.wait(async () => (await heads()).join() === 'REQ-001,REQ-002,REQ-003,REQ-004', 20_000, 'the rows are ordered');
    await ada.press('Swap');
    await ada.driver.wait(async () => (await heads()).join() === 'TC-001,TC-002,TC-003,TC-004,TC-005', 20_000, 'the sides are swapped');
    await ada.choose('In which order', 'along the diagonal');
    await ada.see('mean distance from the diagonal');
    await ada.choose('Which lines', 'what is linked only');
    await ada.driver.wait(async () => (await heads()).length === 3, 20_000, 'only what is linked is left');
  });

  it('is compared with how it was when its first links were made', async () => {
    const changes = await call<{ seq: number; action: string }[]>('/changes');
    const since = changes.findLast(({ action }) => action === 'Make 4 links')!.seq;
    const now = (await readLinks(call)).filter((link) => link.includes(' verifies REQ'));
    const then = made.filter((link) => link.includes(' verifies REQ'));
    const [came, went] = [now.filter((link) => !then.includes(link)), then.filter((link) => !now.includes(link))];
    expect(came.length).toBeGreaterThan(0);
    await ada.open(`${page}/link/matrix?rows=${find.collectionOf('REQ-001')}&columns=${find.collectionOf('TC-001')}&since=${since}`);
    await ada.see(`${came.length} came, ${went.length} went since change ${since}`);
    await (await cells()).click();
    await ada.hold(Key.CONTROL, Key.HOME);
    const [test, , requirement] = came[0]!.split(' ') as [string, string, string];
    const field = await ada.driver.findElement(By.css('input[aria-label="Find a column"]'));
    await field.sendKeys(test);
    await ada.driver.wait(async () => (await stands()).includes(`× ${test}:`), 20_000, 'the column is found');
    const rowField = await ada.driver.findElement(By.css('input[aria-label="Find a row"]'));
    await rowField.sendKeys(requirement);
    await ada.driver.wait(async () => (await stands()).startsWith(`${requirement} × ${test}: came`), 20_000, 'the cell says that its link came');
    await ada.choose('What of the comparison', 'what came or went only');
    await ada.see(`${came.length} came`);
    await ada.choose('Compare with', 'not compared');
    await ada.seeNothingOf('since change');
  });

  it('did all that without a complaint of the browser', async () => {
    expect(await ada.complaints()).toEqual([]);
  });
});
