import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { type MadeProject, makeProject, readLinks } from './support/project.js';
import { removeData, type Started, startCoomb } from './support/server.js';

/** Groups of things each of which depends on the one or two before it. */
const GROUPS = 3;
const SIZE = 6;

describe('the structure of dependencies', () => {
  let coomb: Started;
  let ada: Person;
  let page = '';
  let call: MadeProject['call'];

  const names = () => ada.driver.executeScript<string[]>('return [...document.querySelectorAll(\'[aria-label="Things"] button\')].map((one) => one.title)');
  const figureOf = async (label: string) =>
    ada.driver.executeScript<string | undefined>(
      'return [...document.querySelectorAll("dl > div")].find((one) => one.querySelector("dt").textContent === arguments[0])?.querySelector("dd").textContent',
      label,
    );
  const until = async (label: string, says: string | RegExp) =>
    ada.driver.wait(
      async () => {
        const figure = (await figureOf(label)) ?? '';
        return typeof says === 'string' ? figure === says : says.test(figure);
      },
      20_000,
      `waited for "${label}" to be ${says}`,
    );

  beforeAll(async () => {
    coomb = await startCoomb();
    const project = await makeProject(coomb.address, 'Built');
    ({ page, call } = project);
    const count = GROUPS * SIZE;
    // Things of one group stand as far from each other as can be.
    const csv = `Reference,Title,Kind\n${Array.from({ length: count }, (_, at) => `PART-0${String(at + 1).padStart(2, '0')},Part ${at + 1} of ${(at % GROUPS) + 1},Component`).join('\n')}\n`;
    await project.handIn('parts.csv', csv, { collection: { name: 'Parts', prefix: 'PART', holds: 'model' } });
    const outline = await project.outline();
    const idOf = (at: number) => outline.id[outline.reference.indexOf(`PART-0${String(at + 1).padStart(2, '0')}`)]!;
    const links: { linkKind: string; from: string; to: string }[] = [];
    const depend = (from: number, to: number) => links.push({ linkKind: 'depends', from: idOf(from), to: idOf(to) });
    for (let group = 0; group < GROUPS; group++)
      for (let at = 0; at < SIZE; at++) for (let step = 1; step <= 2; step++) if (at + step < SIZE) depend(group + GROUPS * (at + step), group + GROUPS * at);
    // One circle, through two parts of the first group.
    depend(0, GROUPS);
    depend(1, GROUPS * 2);
    await call('/links', { links });
    ada = await Person.arrive('Ada Wick');
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    removeData(coomb.data);
  });

  it('shows what depends on what, and what a cell consists of', async () => {
    await ada.open(`${page}/shape/structure`);
    await ada.see('18 things, 29 dependencies');
    await until('Marks above the diagonal', /^[0-9]+$/);
    await (await ada.find('//canvas[@role="grid"]', 'the cells')).click();
    await ada.type(...Array.from({ length: 18 }, () => Key.ARROW_UP), ...Array.from({ length: 18 }, () => Key.ARROW_LEFT));
    await ada.type(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_RIGHT);
    await ada.see('PART-001 on PART-004');
    const pane = await ada.driver.executeScript<string>('return document.body.innerText');
    expect(pane).toContain('depends on');
  });

  it('is ordered with the fewest feedback marks, proven, with what breaks the circle', async () => {
    await ada.choose('How it is ordered', 'with the least feedback');
    await until('Proven: no order has fewer', '1');
    await until('Cycles', '1');
    await until('Things in cycles', '2');
    await ada.see('A cycle of 2 things');
    await ada.see('Without 1 dependency it is none');
  });

  it('is proposed in groups, compared with today, moved by hand and taken back, and kept', async () => {
    await ada.choose('How it is ordered', 'in proposed groups');
    await until('Groups', '1 → 3');
    await until('Dependencies across groups', '0 → 1');
    const groupsOf = (list: string[]) =>
      Array.from({ length: GROUPS }, (_, at) => new Set(list.slice(at * SIZE, (at + 1) * SIZE).map((name) => name.split(' of ')[1])).size);
    expect(groupsOf(await names())).toEqual([1, 1, 1]);
    await ada.choose('Move the thing to a group', 'a group of its own');
    await until('Groups', '1 → 4');
    await until('Dependencies across groups', /^0 → [3-9]$/);
    await ada.press('Take 1 move back');
    await until('Groups', '1 → 3');
    const field = await ada.driver.findElement(By.css('input[aria-label="Name of the proposal"]'));
    await field.sendKeys('Three houses', Key.ENTER);
    await ada.driver.wait(async () => (await call<{ name: string }[]>('/views')).some(({ name }) => name === 'Three houses'), 20_000, 'it is kept');
    await ada.press('As lenses');
    await ada.see('3 lenses kept');
  });

  it('becomes items that what is in each group is linked with, and is taken back as one', async () => {
    const before = (await readLinks(call)).length;
    await ada.press('As items…');
    await ada.see(`${GROUPS} items will be made, with ${GROUPS * SIZE} links`);
    await ada.fill('Name of group 1', 'The first house');
    await ada.press('Make them');
    await ada.see(`made, with ${GROUPS * SIZE} links`);
    const { title } = await call<{ title: string[] }>('/outline');
    expect(title.filter((one) => one === 'The first house')).toHaveLength(1);
    expect(await readLinks(call)).toHaveLength(before + GROUPS * SIZE);
    await ada.hold(Key.CONTROL, 'z');
    await ada.driver.wait(async () => (await readLinks(call)).length === before, 20_000, 'all of it is taken back');
    expect((await call<{ title: string[] }>('/outline')).title).not.toContain('The first house');
  });

  it('weighs what depends on what, or each pair once', async () => {
    await ada.open(`${page}/shape/structure`);
    await ada.see(`${GROUPS * SIZE} things`);
    await ada.press('counted');
    const field = await ada.driver.findElement(By.css('input[aria-label="Weight of: depends on"]'));
    await field.sendKeys(Key.HOME, Key.chord(Key.SHIFT, Key.END), '4');
    await ada.driver.wait(async () => (await ada.driver.getCurrentUrl()).includes('weights='), 20_000, 'the weight is in the address');
    await ada.press('Each pair once');
    await ada.see('each pair once');
    await ada.press('Count each');
    await ada.see('counted');
  });

  it('shows a kept proposal again', async () => {
    await ada.open(`${page}/shape/structure`);
    await ada.press('Kept (1)');
    await ada.press('Three houses');
    await ada.see('As kept');
    await until('Groups', '1 → 3');
    expect(await ada.complaints()).toEqual([]);
  });
});
