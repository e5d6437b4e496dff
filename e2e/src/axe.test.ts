import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { basename } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { demoFile, removeData, type Started, startCoomb } from './support/server.js';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Runs in the page: what of it is out of reach for somebody by the given rules, or by all, as "rule: element, element". */
const look = `
  const [rules, done] = arguments;
  axe.run(document, { resultTypes: ['violations'], ...(rules && { runOnly: rules }) }).then(
    ({ violations }) => done(violations.map(({ id, nodes }) => id + ': ' + nodes.slice(0, 4).map((node) => node.html.slice(0, 160)).join(' | ') + ' (' + nodes.length + ')')),
    (error) => done([String(error)]),
  );`;
/** The rules that a theme decides. */
const ofTheme = ['color-contrast', 'link-in-text-block'];

describe('every view, in both themes', () => {
  let coomb: Started;
  let ada: Person;
  let project = '';
  const ids: Record<string, string> = {};
  const api = async <T>(path: string, body?: unknown): Promise<T> => {
    const response = await fetch(`${project.replace('/p/', '/api/projects/')}${path}`, {
      ...(body !== undefined && { method: 'POST' }),
      ...(body instanceof FormData ? { body } : body !== undefined && { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
    if (!response.ok) throw new Error(await response.text());
    return (await response.json()) as T;
  };
  const lay = async (name: string) => {
    const form = new FormData();
    form.set('file', new Blob([readFileSync(demoFile(name))]), basename(name));
    return (await api<{ id: string }>('/tray', form)).id;
  };

  beforeAll(async () => {
    coomb = await startCoomb('demo');
    project = coomb.address;
    ada = await Person.arrive('Ada Wick');
    await ada.open(project);
    ids.document = await lay('2 Larkbeck system requirements.docx');
    ids.newer = await lay('next/2 Larkbeck system requirements, issue 4.docx');
    ids.sheet = await lay('4 Larkbeck test cases.xlsx');
    ids.exchange = await lay('7 Gate drive of the supplier.reqif');
    ids.model = await lay('3 Larkbeck model.xmi');
    ids.results = await lay('5 Rig run 7.xml');
    const sources = await api<{ id: string; name: string; lineage: string }[]>('/sources');
    ids.source = sources.find(({ name }) => name.endsWith('requirements.docx'))!.id;
    ids.table = sources.find(({ name }) => name.endsWith('cases.xlsx'))!.id;
    ids.run = (await api<{ id: string }[]>('/runs'))[0]!.id;
    ids.report = (await api<{ id: string }>('/reports', { title: 'Before the floods' })).id;
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    if (coomb) removeData(coomb.data);
  });

  const views: [what: string, path: () => string, shows: string, title: string][] = [
    ['section', () => '', 'System requirements · 150 items', 'Section · Larkbeck Weir · Coomb'],
    ['section with an item at its side', () => '?item=SYS-011', 'Full opening', 'SYS-011 Full opening · Larkbeck Weir · Coomb'],
    ['sources', () => '/gather', 'Rig run 7', 'Sources · Larkbeck Weir · Coomb'],
    ['recipes', () => '/gather/recipes', 'Come with Coomb', 'Recipes · Larkbeck Weir · Coomb'],
    ['a document in the tray', () => `/gather/${ids.document}`, '123 items', '2 Larkbeck system requirements.docx · Larkbeck Weir · Coomb'],
    ['a sheet in the tray', () => `/gather/${ids.sheet}`, 'TC-001', '4 Larkbeck test cases.xlsx · Larkbeck Weir · Coomb'],
    ['an exchange in the tray', () => `/gather/${ids.exchange}`, 'GD-101', '7 Gate drive of the supplier.reqif · Larkbeck Weir · Coomb'],
    ['a model in the tray', () => `/gather/${ids.model}`, 'Larkbeck Installation', '3 Larkbeck model.xmi · Larkbeck Weir · Coomb'],
    ['results in the tray', () => `/gather/${ids.results}`, 'TC-001', '5 Rig run 7.xml · Larkbeck Weir · Coomb'],
    ['a newer version', () => `/gather/${ids.newer}/compare?source=${ids.source}`, 'issue 4', ''],
    ['a source', () => `/gather/sources/${ids.source}`, 'Level regulation', '2 Larkbeck system requirements.docx · Larkbeck Weir · Coomb'],
    ['a source of rows', () => `/gather/sources/${ids.table}`, 'TC-001', '4 Larkbeck test cases.xlsx · Larkbeck Weir · Coomb'],
    ['a test run', () => `/gather/runs/${ids.run}`, 'passed', ''],
    ['reading', () => '/shape', 'Level regulation', 'System requirements · Larkbeck Weir · Coomb'],
    ['the register', () => '/shape/register?kind=requirement', 'Pool level band', 'Register · Larkbeck Weir · Coomb'],
    ['impact on the section', () => '/link/impact?items=SYS-009&shape=section', '22 items', 'Impact · Larkbeck Weir · Coomb'],
    ['the structure', () => '/shape/structure', 'Weir Site', 'Structure · Larkbeck Weir · Coomb'],
    ['the structure in groups', () => '/shape/structure?by=groups&level=3', 'Would move', 'Structure · Larkbeck Weir · Coomb'],
    ['two moments compared', () => '/changes/between?since=5', '3 changed', 'Compare · Larkbeck Weir · Coomb'],
    ['bench', () => '/link', 'SYS-001', 'Bench · Larkbeck Weir · Coomb'],
    ['matrix', () => '/link/matrix', 'SYS-001', 'Trace matrix · Larkbeck Weir · Coomb'],
    ['suspect links', () => '/link/suspect', '10 links from 3 changes', 'Suspect links · Larkbeck Weir · Coomb'],
    ['all links', () => '/link/all?group=kind', '458 of 458 links', 'All links · Larkbeck Weir · Coomb'],
    ['layers', () => '/link/layers', 'Components', 'Layers · Larkbeck Weir · Coomb'],
    ['impact', () => '/link/impact?items=SYS-011', 'Downstream: what rests on it', 'Impact · Larkbeck Weir · Coomb'],
    ['findings', () => '/check/findings?trend=yes', 'What must be covered', 'Findings · Larkbeck Weir · Coomb'],
    ['what is in hand', () => '/check/in-hand?whose=all', 'Nothing here', 'In hand · Larkbeck Weir · Coomb'],
    ['found items', () => '/found?words=flood', 'Leave flood mode', 'Found · Larkbeck Weir · Coomb'],
    ['contents', () => '/shape/contents', 'Stakeholder needs', 'Contents · Larkbeck Weir · Coomb'],
    ['the scheme', () => '/shape/scheme', 'What must hold', 'Scheme · Larkbeck Weir · Coomb'],
    ['a rule of the scheme', () => '/shape/scheme?part=rule%20tested', 'over up to', 'Scheme · Larkbeck Weir · Coomb'],
    ['a kind of the scheme', () => '/shape/scheme?part=kind%20requirement', 'Made in passing', 'Scheme · Larkbeck Weir · Coomb'],
    ['readiness', () => '/check', 'Every need leads to at least one requirement.', 'Readiness · Larkbeck Weir · Coomb'],
    ['a figure', () => '/check/figure/state:failing', 'Failing: 12', ''],
    ['reports', () => '/publish', 'Before the floods', 'Status reports · Larkbeck Weir · Coomb'],
    ['a report', () => `/publish/${ids.report}`, 'Before the floods', ''],
    ['changes', () => '/changes', 'Import 2 Larkbeck system requirements.docx', 'Changes · Larkbeck Weir · Coomb'],
    ['a change', () => '/changes/3', 'Import', ''],
    ['an item', () => '/items/SYS-001', 'Pool level band', 'SYS-001 Pool level band · Larkbeck Weir · Coomb'],
    ['nothing', () => '/nowhere', 'There is nothing at this address', ''],
  ];

  async function violations(rules: string[] | null = null): Promise<string[]> {
    await ada.driver.executeScript(`if (!window.axe) { ${axe} }`);
    return ada.driver.executeAsyncScript<string[]>(look, rules);
  }
  it.each(views)('keep nobody out: %s', async (_what, path, shows, title) => {
    await ada.driver.manage().setTimeouts({ script: 120_000 });
    await ada.prefer('light');
    await ada.open(project + path());
    await ada.see(shows);
    await ada.driver.sleep(500);
    const found = await violations();
    await ada.prefer('dark');
    await ada.driver.sleep(500);
    expect(await ada.driver.executeScript('return getComputedStyle(document.documentElement).colorScheme')).toBe('dark');
    found.push(...(await violations(ofTheme)).map((fault) => `dark: ${fault}`));
    expect(found).toEqual([]);
    expect(await ada.driver.executeScript('return document.querySelectorAll("h1").length')).toBe(1);
    if (title) expect(await ada.driver.getTitle()).toBe(title);
  });

  it('nor the list of projects, find anything, and the keys of a view', async () => {
    await ada.open(new URL('/', project).href);
    await ada.see('Larkbeck Weir');
    expect(await violations()).toEqual([]);
    expect(await ada.driver.getTitle()).toBe('Projects · Coomb');
    await ada.open(`${project}/shape`);
    await ada.see('Level regulation');
    await ada.type('?');
    await ada.see('Keys');
    expect(await violations()).toEqual([]);
    await ada.type('\uE00C');
    await ada.press('Find anything');
    await ada.type('gate');
    await ada.see('gate');
    await ada.driver.sleep(800);
    expect(await violations()).toEqual([]);
  });
});
