import { readFileSync } from 'node:fs';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Person } from './support/browser.js';
import { demoFile, removeData, type Started, startCoomb } from './support/server.js';

interface Columns {
  node: number[];
  reference: string[];
  title: string[];
}
interface Links {
  from: number[];
  to: number[];
  kind: number[];
  usages: string[];
  fromUsage: number[];
}

/** One drive, used in two gates of one site. */
const site = `<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:sysml="http://www.omg.org/spec/SysML/20181001/SysML"><uml:Model xmi:id="m" name="Plant">
<packagedElement xmi:type="uml:Class" xmi:id="s" name="Site"><ownedAttribute xmi:id="s1" name="east" aggregation="composite" type="g"/><ownedAttribute xmi:id="s2" name="west" aggregation="composite" type="g"/></packagedElement>
<packagedElement xmi:type="uml:Class" xmi:id="g" name="Gate"><ownedAttribute xmi:id="g1" name="lift" aggregation="composite" type="d"/></packagedElement>
<packagedElement xmi:type="uml:Class" xmi:id="d" name="Drive"/></uml:Model><sysml:Block xmi:id="b1" base_Class="s"/><sysml:Block xmi:id="b2" base_Class="g"/><sysml:Block xmi:id="b3" base_Class="d"/></xmi:XMI>`;

describe('linking where things are drawn and used', () => {
  let coomb: Started;
  let ada: Person;
  let base = '';
  let page = '';

  const call = async <T>(path: string, body?: unknown): Promise<T> => {
    const init = body === undefined ? {} : { method: 'POST', body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } };
    return (await fetch(`${base}${path}`, init)).json() as Promise<T>;
  };
  /** Links but those of structure, as "Motor SYS-002", with the use that they hold in. */
  const readLinks = async (): Promise<string[]> => {
    const outline = await call<Columns>('/outline');
    const rowOf = new Map(outline.node.map((node, row) => [node, row]));
    const links = await call<Links>('/links');
    return links.from
      .map((from, at) => {
        const [a, b] = [rowOf.get(from)!, rowOf.get(links.to[at]!)!];
        const usage = links.usages[links.fromUsage[at] ?? -1];
        return `${outline.title[a]} ${outline.reference[b]}${usage ? ` in ${usage}` : ''}`;
      })
      .filter((text) => / REQ-/.test(text));
  };
  const handIn = async (name: string, bytes: BlobPart, wish: object) => {
    const form = new FormData();
    form.set('file', new Blob([bytes]), name);
    const entry = (await (await fetch(`${base}/tray`, { method: 'POST', body: form })).json()) as { id: string };
    const { job } = await call<{ job: string }>(`/tray/${entry.id}/import`, wish);
    for (;;) {
      const { state, message } = await call<{ state: string; message: string }>(`/jobs/${job}`);
      if (state === 'done') return;
      if (state !== 'running') throw new Error(message);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  };
  /** The words of a shape: they lie unseen where the picture shows them. */
  const shape = (name: string) => ada.driver.findElement(By.xpath(`//*[local-name()="text" and normalize-space()="${name}"]`));
  const row = (reference: string) => ada.driver.findElement(By.css(`[role="option"][data-reference="${reference}"]`));
  const expectLinks = async (expected: string[]) => {
    await ada.driver.wait(async () => (await readLinks()).length === expected.length, 20_000, `waited for ${expected.join('; ')}`);
    expect((await readLinks()).toSorted()).toEqual(expected.toSorted());
  };

  beforeAll(async () => {
    coomb = await startCoomb();
    const init = { method: 'POST', body: '{"name":"Drawn"}', headers: { 'Content-Type': 'application/json' } };
    const { id } = (await (await fetch(`${coomb.address}/api/projects`, init)).json()) as { id: string };
    base = `${coomb.address}/api/projects/${id}`;
    page = `${coomb.address}/p/${id}`;
    const rows = Array.from({ length: 200 }, (_, at) => `REQ-${String(at + 1).padStart(3, '0')},Wish number ${at + 1},Requirement`);
    await handIn('wishes.csv', `Reference,Title,Kind\n${rows.join('\n')}\n`, { collection: { name: 'Wishes', prefix: 'REQ', holds: 'specification' } });
    await handIn('drive.xmi', new Uint8Array(readFileSync(demoFile('10 Drive of the supplier.xmi'))), {
      collection: { name: 'Drive', prefix: 'DRV', holds: 'model' },
    });
    await handIn('site.xmi', site, { collection: { name: 'Plant', prefix: 'PL', holds: 'model' } });
    ada = await Person.arrive('Ada Wick');
    const [drawing] = await call<{ id: string }[]>('/drawings');
    await ada.open(`${page}/shape/drawings/${drawing!.id}`);
    await ada.see('REQ-003');
    await ada.driver.wait(async () => (await ada.driver.findElements(By.xpath('//*[local-name()="text" and normalize-space()="Motor"]'))).length > 0, 20_000);
  });
  afterAll(async () => {
    await ada?.leave();
    await coomb?.stop();
    removeData(coomb.data);
  });

  const made: string[] = [];
  it('links the shape that was taken with the row that it was dropped on', async () => {
    await ada.drag(await shape('Motor'), await row('REQ-002'));
    made.push('Motor REQ-002');
    await expectLinks(made);
  });

  it('links the row that was taken with the shape that it was dropped on', async () => {
    await ada.drag(await row('REQ-005'), await shape('Spring brake'));
    made.push('Spring brake REQ-005');
    await expectLinks(made);
  });

  it('links what is under the pointer after zooming and moving', async () => {
    const host = await ada.driver.findElement(By.css('[aria-roledescription="drawing"]'));
    await host.sendKeys('+', Key.chord(Key.SHIFT, Key.ARROW_RIGHT), Key.chord(Key.SHIFT, Key.ARROW_DOWN));
    await ada.driver.sleep(700);
    await ada.drag(await shape('Torque switch'), await row('REQ-009'));
    made.push('Torque switch REQ-009');
    await expectLinks(made);
    await host.sendKeys('0');
    await ada.driver.sleep(500);
  });

  it('shows what a shape is linked with, alone if that is wanted', async () => {
    await ada.driver
      .actions({ async: true })
      .move({ origin: await shape('Spring brake') })
      .click()
      .perform();
    await ada.see('Only what is linked with Spring brake (1)');
    const only = () => ada.driver.findElement(By.xpath('//label[contains(., "Only what is linked with")]')).click();
    await only();
    await ada.driver.wait(async () => (await ada.driver.findElements(By.css('[role="option"][data-reference]'))).length === 1, 20_000);
    expect(await (await row('REQ-005')).getText()).toContain('Wish number 5');
    await only();
  });

  it('goes from shape to shape by keys, and links with the row that is marked', async () => {
    await ada.see('REQ-003');
    await (await row('REQ-003')).click();
    const host = await ada.driver.findElement(By.css('[aria-roledescription="drawing"]'));
    await host.sendKeys(Key.ARROW_LEFT);
    await ada.see('Only what is linked with Motor');
    await host.sendKeys(Key.ENTER);
    made.push('Motor REQ-003');
    await expectLinks(made);
  });

  it('links row after row as fast as the hand goes: nothing lies over what is taken next', async () => {
    await ada.driver.executeScript('document.querySelector(\'[role="listbox"]\').scrollTop = 0');
    await ada.see('REQ-010');
    for (const [at, name] of ['Motor', 'Torque switch', 'Spring brake', 'Motor', 'Spring brake', 'Torque switch'].entries()) {
      const reference = `REQ-${String(11 + at).padStart(3, '0')}`;
      await ada.drag(await row(reference), await shape(name));
      made.push(`${name} ${reference}`);
      await ada.see(`satisfies ${reference}`);
    }
    await expectLinks(made);
  });

  it('links in one use only, and shows every other use that it is not linked there', async () => {
    await ada.driver.get(`${page}/shape/composition`);
    await ada.see('east: Gate');
    const tree = await ada.driver.findElement(By.css('[role="group"][aria-label="Composition of Site"]'));
    await tree.sendKeys(Key.ARROW_DOWN, Key.ARROW_RIGHT);
    await ada.see('lift: Drive');
    await tree.sendKeys(Key.ARROW_DOWN);
    await ada.see('Only what is linked with lift: Drive');
    await (await row('REQ-004')).click();
    await tree.sendKeys(Key.ENTER);
    made.push('Drive REQ-004 in Site › east › lift › Drive');
    await expectLinks(made);
    await tree.sendKeys(Key.ARROW_DOWN, Key.ARROW_RIGHT);
    await ada.see('not linked here');
    const uses = await ada.driver.findElements(By.css('[role="treeitem"]'));
    const texts = await Promise.all(uses.map(async (use) => (await use.getText()).replace(/\s+/g, ' ')));
    expect(texts.map((text) => [text.includes('lift: Drive'), text.includes('not linked here')]).filter(([isLift]) => isLift)).toEqual([
      [true, false],
      [true, true],
    ]);
    expect(await ada.complaints()).toEqual([]);
  });

  it('shows on the sheet and in the matrix in which use it is linked, and in which it is not', async () => {
    const outline = await call<Columns & { id: string[]; collection: number[]; collections: string[] }>('/outline');
    const at = (title: string) => outline.title.indexOf(title);
    const collectionOf = (title: string) => outline.collections[outline.collection[at(title)]!]!;
    await ada.driver.get(`${page}/items/${outline.reference[at('Drive')]}`);
    await ada.see('Shown wherever it is used');
    const choice = await ada.driver.findElement(By.css('select[aria-label="The use that it is shown in"]'));
    const labels = await Promise.all((await choice.findElements(By.css('option'))).map((one) => one.getText()));
    expect(labels).toEqual(['in every use (2)', 'as Site › east › lift › Drive, 1 link of its own', 'as Site › west › lift › Drive']);
    await ada.type('u');
    await ada.driver.wait(async () => (await ada.driver.getCurrentUrl()).includes('in='), 10_000);
    expect(await ada.driver.findElements(By.xpath('//*[contains(text(), "not linked here")]'))).toHaveLength(0);
    await ada.type('u');
    await ada.see('not linked here, but in other uses');
    await ada.driver.get(`${page}/link/matrix?rows=${collectionOf('Site')}&columns=${collectionOf('Wish number 1')}`);
    await ada.see('not linked here');
    const heads = await ada.driver.findElements(By.css('[aria-label="Rows"] .line'));
    const texts = await Promise.all(heads.map(async (head) => (await head.getText()).replace(/\s+/g, ' ')));
    expect(texts.filter((text) => text.startsWith('in '))).toEqual([
      expect.stringMatching(/^in east › lift 1$/),
      expect.stringMatching(/^in west › lift not linked here 0$/),
    ]);
  });

  it('places what is drawn here by hand: the shape that was taken and its branch move, and stay so', async () => {
    await ada.driver.get(`${page}/shape/drawings/new?sort=composition&levels=2`);
    await ada.see('Composition of Site');
    await ada.driver.wait(
      async () => (await ada.driver.findElements(By.xpath('//*[local-name()="text" and normalize-space()="east: Gate"]'))).length > 0,
      20_000,
    );
    await ada.press('Keep…');
    await ada.press('Keep');
    await ada.driver.wait(async () => /drawings\/[0-9a-f-]{36}/.test(await ada.driver.getCurrentUrl()), 20_000);
    const id = /drawings\/([0-9a-f-]{36})/.exec(await ada.driver.getCurrentUrl())![1]!;
    interface Shape {
      name: string;
      x: number;
      y: number;
    }
    const read = async () => {
      const { shapes } = await call<{ shapes: Shape[] }>(`/drawings/${id}`);
      return new Map(shapes.map(({ name, x, y }, index) => [`${name} ${index}`, { x, y }]));
    };
    const before = await read();
    await ada.see('place');
    await ada.press('place');
    await ada.driver.wait(
      async () => (await ada.driver.findElements(By.xpath('//*[local-name()="text" and normalize-space()="east: Gate"]'))).length > 0,
      20_000,
    );
    await ada.driver
      .actions()
      .move({ origin: await shape('east: Gate') })
      .press()
      .move({ origin: await shape('east: Gate'), x: 0, y: -60 })
      .release()
      .perform();
    await ada.press('Keep');
    await ada.driver.wait(async () => [...(await read()).values()].some(({ y }, at) => y !== [...before.values()][at]!.y), 20_000);
    const after = await read();
    const moved = [...after].filter(([key, { x, y }]) => x !== before.get(key)!.x || y !== before.get(key)!.y).map(([key]) => key.replace(/ \d+$/, ''));
    expect(moved).toEqual(['east: Gate', 'lift: Drive']);
    await ada.driver.navigate().refresh();
    await ada.see('Lay out anew');
    expect(await ada.complaints()).toEqual([]);
  });
});
