import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { finderIn, type MadeProject, makeProject, readLinks } from './support/project.js';
import { removeData, type Started, startCoomb } from './support/server.js';

describe('links made where one stands, and kept true', () => {
  let coomb: Started;
  let ada: Person;
  let ewan: Person;
  let page = '';
  let call: MadeProject['call'];
  let find: ReturnType<typeof finderIn>;

  const expectLinks = async (expected: string[]) => {
    await ada.driver.wait(async () => (await readLinks(call)).length === expected.length, 20_000, `waited for ${expected.join('; ')}`);
    expect(await readLinks(call)).toEqual(expected.toSorted());
  };
  const list = (name: string) => ada.driver.findElement(By.css(`[role="grid"][aria-label="${name}"]`));

  beforeAll(async () => {
    coomb = await startCoomb();
    const project = await makeProject(coomb.address, 'Linked');
    ({ page, call } = project);
    const { handIn } = project;
    const csv = (prefix: string, kind: string) =>
      `Reference,Title,Kind\n${Array.from({ length: 8 }, (_, at) => `${prefix}-00${at + 1},${kind} number ${at + 1},${kind}`).join('\n')}\n`;
    await handIn('wishes.csv', csv('REQ', 'Requirement'), { collection: { name: 'Wishes', prefix: 'REQ', holds: 'specification' } });
    await handIn('tests.csv', csv('TC', 'Test case'), { collection: { name: 'Tests', prefix: 'TC', holds: 'tests' } });
    find = finderIn(await project.outline());
    [ada, ewan] = await Promise.all([Person.arrive('Ada Wick'), Person.arrive('Ewan Reed')]);
  });
  afterAll(async () => {
    await Promise.all([ada?.leave(), ewan?.leave()]);
    await coomb?.stop();
    removeData(coomb.data);
  });

  const made: string[] = [];
  it('pastes links from a spreadsheet, having said what becomes of every row', async () => {
    await ada.open(`${page}/link/all`);
    await ada.see('Nothing is linked yet');
    await ada.press('Paste…');
    const cells = await ada.find('//textarea[@aria-label="Cells"]', 'the cells');
    await cells.sendKeys('TC-001;REQ-001', Key.ENTER, 'TC-002;REQ-001', Key.ENTER, 'TC-003;REQ-002', Key.ENTER, 'TC-099;REQ-002');
    await ada.see('3 will be made');
    await ada.see('1 not found');
    expect(await readLinks(call)).toEqual([]);
    await ada.press('Make 3 links');
    made.push('TC-001 verifies REQ-001', 'TC-002 verifies REQ-001', 'TC-003 verifies REQ-002');
    await expectLinks(made);
    await ada.see('3 of 3 links');
  });

  it('links the item whose reference was dragged with the one whose row it was dropped on', async () => {
    await ada.driver.get(`${page}/check/findings?rule=gap:tested&item=TC-004`);
    const held = await ada.find('//aside//*[@draggable="true" and normalize-space()="TC-004"]', 'the reference of the sheet');
    await ada.drag(held, await ada.see('Requirement number 5'));
    made.push('TC-004 verifies REQ-005');
    await expectLinks(made);
    const stillListed = () => ada.driver.findElements(By.css('[role="row"][data-name^="REQ-005"]'));
    await ada.driver.wait(async () => (await stillListed()).length === 0, 20_000, 'waited for the gap to go');
  });

  it('marks here, goes elsewhere and links there, by keys alone', async () => {
    await ada.driver.get(`${page}/check/findings?rule=gap:tested`);
    await ada.see('REQ-003');
    await list('Findings').sendKeys(Key.chord(Key.SHIFT, Key.ARROW_DOWN), '.');
    await ada.see('REQ-003, REQ-004');
    await ada.driver.get(`${page}/items/TC-005`);
    await ada.see('Test case number 5');
    await ada.type(';');
    await ada.see('makes 2 links');
    await ada.type(Key.ENTER);
    made.push('TC-005 verifies REQ-003', 'TC-005 verifies REQ-004');
    await expectLinks(made);
  });

  it('shows what another person links, and where that person is, without anything being pressed', async () => {
    await ewan.open(`${page}/link?left=${find.collectionOf('REQ-001')}&right=${find.collectionOf('TC-001')}&at=REQ-006`);
    await ewan.see('REQ-006');
    await ada.driver.get(`${page}/link?left=${find.collectionOf('REQ-001')}&right=${find.collectionOf('TC-001')}`);
    await ada.find('//*[@role="option" and @data-reference="REQ-006"]//*[@aria-label="Ewan Reed is here"]', 'the mark of Ewan');
    const linked = () => ada.driver.executeScript<number>('return document.querySelectorAll(\'[aria-label*="REQ-006 is verified by TC-006"], title\').length');
    const before = await linked();
    await call('/links', { links: [{ linkKind: 'verifies', from: find.idOf('TC-006'), to: find.idOf('REQ-006') }] });
    made.push('TC-006 verifies REQ-006');
    await ada.driver.wait(async () => (await linked()) > before, 10_000, 'waited for the thread of the other person');
  });

  it('judges suspect links by keys: one by one, and many with a reason', async () => {
    const reword = async (reference: string, title: string) => {
      const { revision } = await call<{ revision: number }>(`/items/${find.idOf(reference)}`);
      await call(`/items/${find.idOf(reference)}`, { revision, title }, 'PATCH');
    };
    await reword('REQ-001', 'Another wish');
    await reword('REQ-002', 'A third wish');
    await ada.driver.get(`${page}/link/suspect`);
    await ada.see('3 links from 2 changes');
    const queue = await list('Suspect links');
    await ada.see('A third wish');
    await queue.sendKeys('c');
    await ada.see('2 links from 1 change');
    await list('Suspect links').sendKeys('g', 'c');
    await ada.see('2 links still hold');
    await ada.type('Only the name is another', Key.TAB);
    await ada.press('Confirm 2 links');
    await ada.see('No link is suspect');
    const [last] = await call<{ action: string }[]>('/changes?most=1');
    expect(last!.action).toBe('Confirm 2 links: Only the name is another');
    expect(await readLinks(call)).toEqual(made.toSorted());
    expect(await ada.complaints()).toEqual([]);
  });
});
