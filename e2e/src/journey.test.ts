import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { demoFile, removeData, type Started, startCoomb } from './support/server.js';

/** The whole journey of a newcomer in a fresh project, with the demo files, through the real page. */
describe('from a document to a report', () => {
  let coomb: Started;
  let ada: Person;
  let project = '';

  beforeAll(async () => {
    coomb = await startCoomb();
    ada = await Person.arrive('Ada Wick');
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    if (coomb) removeData(coomb.data);
  });

  const go = (path: string) => ada.open(`${coomb.address}/p/${project}${path}`);
  const api = async <T>(path: string): Promise<T> => (await (await fetch(`${coomb.address}/api/projects/${project}${path}`)).json()) as T;

  it('starts a project and says where to begin', async () => {
    await ada.open(coomb.address);
    await ada.fill('Name of a new project', 'Second weir');
    await (await ada.see('with collections and a first outline')).click();
    await ada.press('Start a project');
    await ada.see('Nothing has been gathered yet');
    project = /\/p\/([^/?]+)/.exec(await ada.driver.getCurrentUrl())![1]!;
    await ada.press('Gather the first file');
    await ada.see('Drop files here, or choose them');
  });

  it('refuses bad files with a clear word and keeps nothing of them', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'coomb-files-'));
    const good = readFileSync(demoFile('2 Larkbeck system requirements.docx'));
    const bad: [string, Buffer, string][] = [
      ['picture.docx', Buffer.from('this is no document at all'), 'is not what its name says'],
      ['cut.docx', good.subarray(0, 9000), 'damaged or incomplete'],
      ['empty.docx', Buffer.alloc(0), 'is empty'],
      ['locked.docx', Buffer.concat([Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]), Buffer.alloc(600)]), 'protected by a password'],
    ];
    for (const [name, bytes, message] of bad) {
      writeFileSync(join(folder, name), bytes);
      await ada.handIn(join(folder, name));
      await ada.see(message);
    }
    expect(await api<unknown[]>('/sources')).toEqual([]);
    removeData(folder);
  });

  it('shows what a document becomes, follows the recipe live, and imports it', async () => {
    await ada.handIn(demoFile('2 Larkbeck system requirements.docx'));
    await ada.see('123 items, 32 sections, 0 of 123 links; ');
    await ada.see('which is not in the project; no link was made');
    await ada.choose('Headings of level 3', 'left out');
    await ada.see('100 items, 32 sections');
    await ada.choose('Headings of level 3', 'items');
    await ada.choose('Meaning of Priority', 'left out');
    await ada.see('123 items');
    await ada.refusals();
    await ada.fill('Name of the collection', 'System requirements');
    await ada.press('Import');
    await ada.see('Undo: Import 2 Larkbeck');
    await ada.see('Pool level band');
    const { collections } = await api<{ collections: { name: string; prefix: string; items: number }[] }>('');
    expect(collections).toMatchObject([{ name: 'System requirements', prefix: 'SYS', items: 123 }]);
    expect(await ada.refusals()).toEqual([]);
  });

  it('takes the whole import back with one undo, and does it again', async () => {
    await ada.press('Undo');
    await ada.see('Undone: Import 2 Larkbeck system requirements.docx');
    await ada.see('This collection is not there any more');
    await ada.press('Redo');
    await ada.see('Pool level band');
  });

  it('gathers a model, naming what it does not know', async () => {
    await go('/gather');
    await ada.handIn(demoFile('3 Larkbeck model.xmi'));
    await ada.see('initial node stays in the file only');
    await ada.see('162 items, 7 sections, 98 links');
    await ada.press('Import');
    await ada.see('Larkbeck Installation');
  });

  it('gathers test cases and their links', async () => {
    await go('/gather');
    await ada.handIn(demoFile('4 Larkbeck test cases.xlsx'));
    await ada.see('61 items, 90 links; nothing doubtful');
    await ada.press('Import');
    await ada.see('Hold level through a dry week');
  });

  it('gathers results, listing what fits no test', async () => {
    await go('/gather');
    await ada.handIn(demoFile('6 Site run 3.xml'));
    await ada.see('35 of 37 cases meet a test case');
    await ada.choose('Show', '2 without a test case');
    await ada.see('old_gate_smoke');
    await ada.see('nothing fits');
    await ada.press('Import');
    await ada.see('Every need and requirement is verified by fresh results, or waived.');
  });

  it('edits a requirement in place by keyboard, and finds the change in its history', async () => {
    await go('/shape?at=SYS-002');
    await ada.press('Edit (Enter)');
    await ada.fill('Title', 'Range of the set level');
    await ada.hold(Key.CONTROL, Key.ENTER);
    await ada.see('Undo: Edit title of SYS-002');
    await go('/shape?item=SYS-002');
    await ada.see('Range of the set level');
    await ada.press('Show its changes');
    await ada.see('Edit title of SYS-002');
    await ada.see('Suspect');
  });

  it('adds, moves and withdraws items', async () => {
    await go('/shape?at=SYS-001');
    await ada.see('Add an item after the marked one');
    await ada.type('a');
    await ada.fill('Title', 'Level alarm');
    await ada.press('Save');
    await ada.see('Undo: Add SYS-124');
    await ada.find('//*[@role="article"][@aria-current][starts-with(@aria-label, "SYS-124")]', 'the new item, marked');
    // The form is gone before keys mean the item again.
    await ada.driver.wait(
      () => ada.driver.executeScript<boolean>(`return document.querySelector('form, [contenteditable="true"]') === null`),
      45_000,
      'the form is still there',
    );
    await ada.hold(Key.ALT, Key.ARROW_UP);
    await ada.see('Undo: Move SYS-124');
    await ada.type(Key.DELETE);
    await ada.see('Undo: Withdraw SYS-124');
    await ada.seeNothingOf('Level alarm');
    await ada.press('Undo');
    await ada.see('Level alarm');
  });

  it('links on the bench by keyboard, offering only what is allowed', async () => {
    await go('/link');
    await ada.see('SYS-001');
    const before = (await api<{ id: string[] }>('/links')).id.length;
    const gate = await ada.find('//*[@role="option"][@data-reference="MOD-001"]', 'the installation');
    await gate.click();
    await ada.type(Key.ARROW_LEFT, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ENTER);
    await ada.driver.wait(async () => (await api<{ id: string[] }>('/links')).id.length === before + 1, 45_000, 'no link was made');
    await ada.see('Undo: Link MOD-001');
    await ada.driver.sleep(1000);
    await ada.type(Key.DELETE);
    await ada.driver.wait(async () => (await api<{ id: string[] }>('/links')).id.length === before, 45_000, 'the link was not removed');
  });

  it('links on the bench by dragging', async () => {
    const before = (await api<{ id: string[] }>('/links')).id.length;
    await go('/link');
    await ada.see('SYS-001');
    const from = await ada.find('//*[@role="option"][@data-reference="SYS-005"]', 'a requirement');
    const to = await ada.find('//*[@role="option"][@data-reference="MOD-007"]', 'a component');
    await ada.drag(from, to);
    await ada.driver.wait(async () => (await api<{ id: string[] }>('/links')).id.length === before + 1, 45_000, 'no link was made by dragging');
    await ada.see('Undo: Link');
  });

  it('links and unlinks in a cell of the trace matrix', async () => {
    await go('/link/matrix');
    await ada.see('SYS-005');
    const before = (await api<{ id: string[] }>('/links')).id.length;
    await (await ada.find('//canvas[@role="grid"]', 'the cells')).click();
    await ada.type(Key.HOME, 'g');
    await ada.see('no link');
    await ada.type(Key.ENTER);
    await ada.driver.wait(async () => (await api<{ id: string[] }>('/links')).id.length === before + 1, 45_000, 'no link was made in the cell');
    await ada.see(': is verified by');
    await ada.type(Key.ENTER);
    await ada.driver.wait(async () => (await api<{ id: string[] }>('/links')).id.length === before, 45_000, 'the cell was not cleared');
    await ada.press('Fold Level regulation');
    await ada.driver.wait(async () => /\d+ of \d+ linked/.test(await ada.pageText()), 45_000, 'what is folded says how much of it is linked');
    await ada.press('Swap');
    await ada.press('Unfold Level regulation');
    await ada.press('Fold Level regulation');
  });

  it('opens every figure of readiness and says why', async () => {
    await go('/check');
    await ada.see('Every requirement is verified by or leads to at least one test case');
    const { rules } = await api<{ rules: { rule: string; counts: { notMet: number } }[] }>('/readiness');
    const { notMet } = rules.find((rule) => rule.rule === 'tested')!.counts;
    await ada.press(`${notMet} not met`);
    await ada.see(`Tested: not met: ${notMet}`);
    await ada.press('As a register');
    await ada.see('whose Tested is not met');
    await ada.see(`${notMet} items`);
    await ada.driver.navigate().back();
    await ada.see(`Tested: not met: ${notMet}`);
    await ada.press('SYS-005');
    await ada.press('Why?');
    await ada.see('directly or over up to two links');
  });

  it('waives a gap by name, with a reason', async () => {
    await go('/check?item=SYS-006');
    await ada.see('Wind set-up');
    const buttons = await ada.findAll('//aside//button[normalize-space(.)="Why?"]');
    await buttons.at(-1)!.click();
    await ada.press('Accept this gap…');
    await ada.fill('Reason for the waiver', 'Shown by analysis; agreed with the authority.');
    await ada.press('Accept the gap');
    await ada.see('Ada Wick waived this');
    await ada.see('Waived');
  });

  it('shows what somebody else changed, without a reload', async () => {
    await go('');
    await ada.see('System requirements');
    const bo = await Person.arrive('Bo Reed');
    try {
      await bo.open(`${coomb.address}/p/${project}/shape?item=SYS-009`);
      await bo.see('Flood mode');
      await ada.find('//*[@aria-label="Here: Ada Wick, Bo Reed"]', 'who is here');
      await ada.press('Find anything');
      await ada.type('SYS-009');
      await ada.see('SYS-009');
      await ada.type(Key.ENTER);
      await ada.see('Flood mode');
      await bo.driver.executeScript(
        `return fetch('/api/projects/${project}/items/SYS-009').then((r) => r.json()).then((item) => fetch('/api/projects/${project}/items/SYS-009', { method: 'PATCH', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ revision: item.revision, title: 'Flood mode of the weir' }) })).then((r) => r.status)`,
      );
      await ada.driver.executeScript('window.notReloaded = true');
      await ada.see('Flood mode of the weir');
      expect(await ada.driver.executeScript('return window.notReloaded')).toBe(true);
    } finally {
      await bo.leave();
    }
  });

  it('publishes a status report as a web page and a document, with what changed since the last', async () => {
    await go('/publish');
    await ada.press('Publish now');
    await ada.see('Verification status, report 1');
    await go('/publish');
    await ada.fill('Note for the cover', 'Second look after the review.');
    await ada.see('up to date');
    const item = await api<{ revision: number }>('/items/SYS-011');
    await fetch(`${coomb.address}/api/projects/${project}/items/SYS-011`, {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ revision: item.revision, html: '<p>Within eleven minutes.</p>' }),
    });
    await ada.press('Publish now');
    await ada.see('Verification status, report 2');
    const [latest] = await api<{ id: string }[]>('/reports');
    const page = await (await fetch(`${coomb.address}/api/projects/${project}/reports/${latest!.id}/page`)).text();
    expect(page).toContain('What changed');
    expect(page).toContain('reworded');
    expect(page).toContain('Second look after the review.');
    const document = Buffer.from(await (await fetch(`${coomb.address}/api/projects/${project}/reports/${latest!.id}/document`)).arrayBuffer());
    expect(document.subarray(0, 2).toString()).toBe('PK');
  });

  it('left no error on any page', async () => {
    expect(await ada.complaints()).toEqual([]);
  });
});

describe('what survives', () => {
  it('keeps every acknowledged change when the server is killed', async () => {
    const first = await startCoomb();
    const call = (path: string, body?: unknown, method = 'POST') =>
      fetch(`${first.address}/api${path}`, {
        method,
        ...(body !== undefined && { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
      }).then((response) => response.json());
    const { id: project } = await call('/projects', { name: 'Killed' });
    const { id: collection } = await call(`/projects/${project}/collections`, { name: 'Needs', holds: 'specification', prefix: 'NEED', kind: 'need' });
    const acknowledged: string[] = [];
    for (let i = 0; i < 25; i++) acknowledged.push((await call(`/projects/${project}/items`, { collection, title: `Need ${i}` })).reference);
    first.process.removeAllListeners('exit');
    first.process.kill('SIGKILL');
    await new Promise((resolve) => first.process.once('exit', resolve));
    const second = await startCoomb('serve', first.data);
    const outline = (await (await fetch(`${second.address}/api/projects/${project}/outline`)).json()) as { reference: string[] };
    expect(outline.reference).toEqual(acknowledged);
    await second.stop();
    removeData(first.data);
  });

  it('lets no second process onto a data folder', async () => {
    const first = await startCoomb();
    await expect(startCoomb('serve', first.data)).rejects.toThrow(/ended with 4: Coomb is already running on/);
    await first.stop();
    expect(existsSync(first.data)).toBe(true);
    removeData(first.data);
  });
});
