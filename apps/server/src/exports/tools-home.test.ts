import {
  type BodyOf,
  buildUrl,
  compareFile,
  createProject,
  exportCollection,
  getDrawing,
  getItem,
  getOutline,
  type importFile,
  listDrawings,
  listSources,
  uploadFile,
} from '@coomb/contract';
import { readXmi } from '@coomb/formats';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { importThrough } from '../cli/client.js';
import { useServer } from '../testing/test-server.js';

/** Tools of their own, run as programs: Alder writes attributes and keeps what it does not know; Rowan writes elements and drops it. */
describe('a model that goes from tool to tool', () => {
  const server = useServer();
  const folder = mkdtempSync(join(tmpdir(), 'coomb-tools-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  let number = 0;

  function work(tool: 'alder' | 'rowan', content: Buffer | string, ...changes: string[]): Buffer {
    const [file, saved] = [join(folder, `${++number} in.xmi`), join(folder, `${number} out.xmi`)];
    writeFileSync(file, content);
    const program = join(process.cwd(), 'apps', 'standins', 'src', 'main.ts');
    execFileSync(process.execPath, [join(process.cwd(), 'node_modules', 'tsx', 'dist', 'cli.mjs'), program, tool, file, '--save', saved, ...changes]);
    return readFileSync(saved);
  }

  const fetchModel = async (project: string, collection: string, format: 'model' | 'xmi') => {
    const response = await fetch(server.address + buildUrl(exportCollection.path, { project, collection, format }));
    if (!response.ok) throw new Error(await response.text());
    return Buffer.from(await response.arrayBuffer());
  };

  /** Imports what another tool made of it, and takes whatever it changed. */
  async function takeFrom(project: string, content: Buffer): Promise<string[]> {
    const { client } = server;
    const [source] = await client.call(listSources, { params: { project } });
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(content)]), 'from the other tool.xmi');
    const reply = await fetch(server.address + buildUrl(uploadFile.path, { project }), { method: 'POST', body: form });
    const { id: tray } = (await reply.json()) as { id: string };
    const compared = await client.call(compareFile, { params: { project, tray }, body: { source: source!.id, other: true, pairs: [] } });
    const changed = compared.entries.filter(({ sort }) => sort === 'changed' || sort === 'new');
    const again = { source: source!.id, other: true, seq: compared.seq, pairs: [], choices: Object.fromEntries(changed.map(({ id }) => [id, 'theirs'])) };
    await importThrough(client, project, 'from the other tool.xmi', content, { again } as unknown as BodyOf<typeof importFile>);
    return changed.map(({ theirs }) => theirs?.title ?? '').sort();
  }

  /** All that a model says: elements by their identifiers, relations in words, and where everything is drawn. */
  async function gist(content: Buffer) {
    const { model } = await readXmi(content);
    const names = new Map(model.elements.map(({ id, name }) => [id, name]));
    return {
      elements: model.elements
        .map(({ id, type, name, text, stereotypes, typedBy, values }) => [id, type, name, text, stereotypes.toSorted(), typedBy, { ...values }])
        .toSorted(),
      relations: model.relations
        .map(({ type, stereotypes, from, to }) => `${from.map((id) => names.get(id))} ${stereotypes} ${type} ${to.map((id) => names.get(id))}`)
        .toSorted(),
      drawings: model.drawings.map(({ id, name, shapes, routes }) => ({
        ...{ id, name },
        shapes: shapes.map(({ id: shape, x, y, width, height }) => [shape, x, y, width, height]),
        routes: routes.map(({ id: route, points }) => [route, points]),
      })),
    };
  }

  it('comes home with exactly what was changed on the way, positions included', { timeout: 120_000 }, async () => {
    const { client } = server;
    const original = work('alder', readFileSync(join(process.cwd(), 'demo', 'files', '3 Larkbeck model.xmi')));
    const { id: project } = await client.call(createProject, { body: { name: 'Tools' } });
    const { collection } = await importThrough(client, project, 'weir.xmi', original, { collection: { name: 'Model', prefix: 'M', holds: 'model' } });
    const changes = ['--rename', 'Torque Limiter=Torque Guard', '--move', 'Weir Gate=40,25', '--connect', 'Weir Gate>Site Power=Trace'];
    const away = work('rowan', await fetchModel(project, collection!, 'xmi'), ...changes);
    // It has no place for behaviour, and says nothing of it.
    expect(away.toString()).not.toContain('"U:Activity"');
    expect(await takeFrom(project, away)).toEqual(['Torque Guard', 'Weir Gate', 'torque']);
    const outline = await client.call(getOutline, { params: { project } });
    expect(outline.title).toContain('A lock passage, step by step');
    const gate = await client.call(getItem, { params: { project, item: outline.id[outline.title.indexOf('Weir Gate')]! } });
    expect([...gate.upstream, ...gate.downstream].map(({ phrase, other }) => `${phrase} ${other.title}`)).toContain('depends on Site Power');
    const home = await fetchModel(project, collection!, 'model');
    expect(await gist(work('alder', home))).toEqual(await gist(work('alder', original, ...changes)));
    // What the first tool put beside the standard is there as it wrote it.
    const strange = (content: Buffer) => content.toString().match(/<xmi:Extension[\s\S]*?<\/xmi:Extension>/g);
    expect(strange(home)).toEqual(strange(original));
  });

  it('says on screen where the other tool placed things', { timeout: 120_000 }, async () => {
    const { client } = server;
    const original = work('alder', readFileSync(join(process.cwd(), 'demo', 'files', '10 Drive of the supplier.xmi')));
    const { id: project } = await client.call(createProject, { body: { name: 'Drive' } });
    const { collection } = await importThrough(client, project, 'drive.xmi', original, { collection: { name: 'Drive', prefix: 'D', holds: 'model' } });
    const [drawing] = await client.call(listDrawings, { params: { project } });
    const shapeOf = async () => (await client.call(getDrawing, { params: { project, drawing: drawing!.id } })).shapes.find(({ name }) => name === 'Motor')!;
    const before = await shapeOf();
    await takeFrom(project, work('rowan', await fetchModel(project, collection!, 'xmi'), '--move', 'Motor=-15,60'));
    const after = await shapeOf();
    expect([after.x - before.x, after.y - before.y]).toEqual([-15, 60]);
    expect((await client.call(listDrawings, { params: { project } })).map(({ id }) => id)).toEqual([drawing!.id]);
  });

  it('is let be by a tool that changes nothing', { timeout: 120_000 }, async () => {
    const { client } = server;
    const original = work('alder', readFileSync(join(process.cwd(), 'demo', 'files', '3 Larkbeck model.xmi')));
    const { id: project } = await client.call(createProject, { body: { name: 'Same' } });
    const { collection } = await importThrough(client, project, 'weir.xmi', original, { collection: { name: 'Model', prefix: 'M', holds: 'model' } });
    expect(await takeFrom(project, work('rowan', await fetchModel(project, collection!, 'xmi')))).toEqual([]);
    expect((await fetchModel(project, collection!, 'model')).toString()).toBe(original.toString());
  });
});
