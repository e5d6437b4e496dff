import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { removeData, type Started, startCoomb } from './support/server.js';

/** What sticks out of the window at the right. */
const STICKS_OUT = `
  return [...document.querySelectorAll('header *, nav *, main h1, main [role=article] *, aside *, footer *')]
    .filter((one) => { const box = one.getBoundingClientRect(); return box.width > 1 && box.right > innerWidth + 1 && !one.closest('table, pre'); })
    .slice(0, 5).map((one) => one.tagName + ' ' + (one.getAttribute('aria-label') ?? one.textContent ?? '').slice(0, 40));`;

/** Sentences in columns of a few letters. */
const SQUEEZED = `
  return [...document.querySelectorAll('main *')]
    .filter((one) => [...one.childNodes].some((node) => node.nodeType === 3 && node.data.trim().length > 24) && one.checkVisibility())
    .filter((one) => { const box = one.getBoundingClientRect(); return box.width > 1 && box.width < 90 && box.height > 60; })
    .slice(0, 5).map((one) => one.textContent.slice(0, 40));`;

/** What holds in every view, on the demo project as a newcomer meets it. */
describe('the demo project', () => {
  let coomb: Started;
  let ada: Person;
  let base = '';

  beforeAll(async () => {
    coomb = await startCoomb('demo');
    base = coomb.address;
    ada = await Person.arrive('Ada Wick');
    await ada.open(base);
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    if (coomb) removeData(coomb.data);
  });

  const views: [path: string, shows: string][] = [
    ['', 'System requirements · 150 items'],
    ['/gather', 'Rig run 7'],
    ['/gather/recipes', 'Come with Coomb'],
    ['/shape', 'Level regulation'],
    ['/shape/register?kind=requirement', 'Pool level band'],
    ['/shape/structure', 'Weir Site'],
    ['/link', 'SYS-001'],
    ['/link/matrix', 'SYS-001'],
    ['/link/suspect', '10 links from 3 changes'],
    ['/link/all', '458 of 458 links'],
    ['/link/layers', 'System requirements'],
    ['/link/impact?items=SYS-011', 'Downstream: what rests on it'],
    ['/check/findings', 'What must be covered'],
    ['/check/in-hand', 'Nothing is in your hand'],
    ['/found?words=flood', 'Leave flood mode'],
    ['/shape/contents', 'Stakeholder needs'],
    ['/shape/scheme', 'What must hold'],
    ['/check', 'Every need leads to at least one requirement.'],
    ['/check/figure/state:failing', 'Failing: 12'],
    ['/publish', 'No report yet'],
    ['/changes/between?since=5', '3 changed'],
    ['/changes', 'Import 2 Larkbeck system requirements.docx'],
    ['/items/SYS-001', 'Pool level band'],
  ];

  it.each(views)('opens at its own address: %s', async (path, shows) => {
    await ada.open(`${base}${path}`);
    await ada.see(shows);
  });

  it.each(views)('names every control and lets no text run over the side: %s', async (path, shows) => {
    await ada.open(`${base}${path}`);
    await ada.see(shows);
    const faults = await ada.driver.executeScript<string[]>(`
      const found = [];
      for (const element of document.querySelectorAll('button, a, input, select, textarea, canvas')) {
        if (!element.checkVisibility() || element.type === 'file') continue;
        const name = element.getAttribute('aria-label') || element.textContent.trim() || element.title || element.placeholder || element.labels?.[0]?.textContent;
        if (!name && element.tagName !== 'CANVAS') found.push('unnamed ' + element.outerHTML.slice(0, 120));
      }
      if (document.documentElement.scrollWidth > innerWidth) found.push('the page is wider than the window');
      return found;`);
    expect(faults).toEqual([]);
  });

  it('goes back and forth through views and sheets', async () => {
    await ada.open(`${base}/check`);
    await ada.see('12 failing');
    await ada.press('12 failing');
    await ada.see('Failing: 12');
    await ada.press('SYS-011');
    await ada.see('Full opening against the clock');
    await ada.driver.navigate().back();
    await ada.seeNothingOf('Full opening against the clock');
    await ada.see('Failing: 12');
    await ada.driver.navigate().back();
    await ada.see('Every need leads to at least one requirement.');
    await ada.driver.navigate().forward();
    await ada.see('Failing: 12');
  });

  it('keeps filters in the address', async () => {
    await ada.open(`${base}/check/figure/state:failing`);
    await ada.fill('Filter by words', 'noise');
    await ada.driver.wait(async () => (await ada.driver.getCurrentUrl()).endsWith('words=noise'), 20_000, 'the words are not in the address');
    await ada.seeNothingOf('Failing: 12');
    await ada.driver.navigate().refresh();
    await ada.see('Failing: 1');
    await ada.choose('Collection', 'Stakeholder needs');
    await ada.see('None of the items holds these words.');
  });

  it('finds items, views and actions from the keyboard', async () => {
    await ada.open(`${base}`);
    await ada.see('System requirements');
    await ada.hold(Key.CONTROL, 'k');
    await ada.type('flood mode');
    await ada.see('Leave flood mode');
    await ada.type(Key.ESCAPE);
    await ada.seeNothingOf('Leave flood mode');
    await ada.type('/');
    await ada.type('trace matrix');
    await ada.see('Link: Trace matrix');
    await ada.type(Key.ENTER);
    await ada.see('Rows and columns without any are shaded.');
    await ada.hold(Key.CONTROL, 'k');
    await ada.type('dark');
    await ada.see('Use the dark theme');
    await ada.type(Key.ENTER);
    await ada.driver.wait(
      async () => ada.driver.executeScript<boolean>("return document.documentElement.classList.contains('dark')"),
      20_000,
      'the theme did not turn dark',
    );
    await ada.press('Light theme');
  });

  it('shows the keys of the view one is in', async () => {
    for (const [path, key] of [
      ['/link', 'Remove the link between them'],
      ['/link/matrix', 'Next gap'],
      ['/shape', 'Edit in place'],
    ] as const) {
      await ada.open(`${base}${path}`);
      await ada.see(path === '/shape' ? 'Level regulation' : 'SYS-001');
      await ada.type('?');
      await ada.see(key);
      await ada.type(Key.ESCAPE);
      await ada.seeNothingOf(key);
    }
  });

  it('walks the section by arrow keys and opens the item', async () => {
    await ada.open(base);
    await ada.see('System requirements · 150 items');
    await ada.driver.executeScript("document.querySelector('canvas[role=application]').focus()");
    await ada.type(Key.ARROW_DOWN, Key.ARROW_DOWN);
    await ada.see('SYS-001');
    await ada.type(Key.ARROW_RIGHT);
    await ada.see('Set level range');
    await ada.type(Key.ENTER);
    await ada.see('Upstream: what it rests on');
  });

  it('confirms a suspect link after showing what changed', async () => {
    await ada.open(`${base}/shape?item=SYS-023`);
    await ada.see('Stop on order');
    await ada.press('Suspect');
    await ada.see('0.5');
    await ada.press('The link still holds');
    await ada.see('Undo: Confirm the link');
  });

  it('says plainly when there is nothing at an address', async () => {
    await ada.open(`${base}/items/SYS-999`);
    await ada.see('There is no item "SYS-999" in Larkbeck Weir.');
    await ada.open(`${base}/check/figure/riddle`);
    await ada.see('There is no figure "riddle".');
    await ada.open(`${new URL(base).origin}/p/01890000-0000-7000-8000-000000000000`);
    await ada.see('There is no project');
  });

  it('keeps what the user changed when it stops and starts again', async () => {
    const before = await fetch(`${new URL(base).origin}/api${new URL(base).pathname.replace('/p/', '/projects/')}/changes`).then((response) => response.json());
    await coomb.stop();
    coomb = await startCoomb('demo', coomb.data);
    expect(new URL(coomb.address).pathname).toBe(new URL(base).pathname);
    base = coomb.address;
    const after = await fetch(`${new URL(base).origin}/api${new URL(base).pathname.replace('/p/', '/projects/')}/changes`).then((response) => response.json());
    expect(after).toEqual(before);
  });

  describe('in small windows and at a high zoom', () => {
    afterAll(() => ada.zoom(1));
    const outside = () => ada.driver.executeScript<string[]>(STICKS_OUT);

    it('shows every stage, and rows of the matrix, at 200 % on 1440 × 900', async () => {
      await ada.zoom(2, 1440, 900);
      await ada.open(`${base}/link/matrix`);
      for (const stage of ['Trace matrix', 'Gather', 'Shape', 'Link', 'Check', 'Publish']) await ada.see(stage);
      expect(await outside()).toEqual([]);
      const height = await ada.driver.executeScript<number>("return document.querySelector('[role=grid]').getBoundingClientRect().height");
      expect(Math.floor(height / 22)).toBeGreaterThanOrEqual(8);
    });

    it.each([
      ['reading', '/shape', 'Level regulation'],
      ['an item', '/items/SYS-001', 'Pool level band'],
      ['an item at the side', '/shape?item=SYS-002', 'Coverage'],
      ['readiness', '/check', 'Every need leads to at least one requirement.'],
      ['sources', '/gather', 'Rig run 7'],
    ])('reads %s in 320 pixels', async (_, path, shows) => {
      await ada.zoom(4, 1280, 2048);
      await ada.open(`${base}${path}`);
      await ada.see(shows);
      expect(await ada.driver.executeScript('return document.documentElement.scrollWidth')).toBe(320);
      expect(await outside()).toEqual([]);
      expect(await ada.driver.executeScript(SQUEEZED)).toEqual([]);
    });
  });

  it('left no error on any page', async () => {
    expect(await ada.complaints()).toEqual([]);
  });
});
