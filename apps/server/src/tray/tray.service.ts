import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { setImmediate } from 'node:timers/promises';
import { join } from 'node:path';
import { CoombError, type TrayEntry, type TrayFileBrief } from '@coomb/contract';
import { contentTypeOf, counted, matchResults, type SourcePicture, testKinds } from '@coomb/core';
import type { FileContent, FileFormat, ReadOptions } from '@coomb/formats';
import { Inject, Injectable } from '@nestjs/common';
import { CLOCK, type Clock } from '../http/tokens.js';
import { proposeRecipe } from './proposal.js';
import { FileReader } from './file-reader.js';
import type { ProjectState } from '../project-state/project-state.js';
import { ProjectStates } from '../project-state/project-states.js';

export const TRAY_FOLDER = Symbol('tray folder');
const OPTIONS = 'options.json';
const KEPT_HOURS = 7 * 24;
/** Files whose content is kept ready, as long as they are not larger than this together: what is read takes many times its size. */
const PARSED_KEPT = 4;
const PARSED_BYTES = 60 * 1024 * 1024;
/** What the tray of a project may hold. */
const MOST_FILES = 200;
const MOST_BYTES = 2 * 1024 * 1024 * 1024;

export interface TrayFile {
  id: string;
  name: string;
  size: number;
  format: FileFormat;
  content: FileContent;
  /** The file as it was handed in. */
  readBytes: () => Promise<Buffer>;
}

/** Files handed in and not imported yet. They lie in a folder of their own, outside the database, for a week. */
@Injectable()
export class TrayService {
  private readonly parsed = new Map<string, { file: Promise<TrayFile>; size: number }>();

  constructor(
    @Inject(TRAY_FOLDER) private readonly folder: string,
    @Inject(FileReader) private readonly reader: FileReader,
    @Inject(ProjectStates) private readonly states: ProjectStates,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {
    mkdirSync(this.incoming, { recursive: true });
    this.dropOld();
  }

  /** Where files lie while they arrive. */
  get incoming(): string {
    return join(this.folder, '.incoming');
  }

  /** Refuses, before a file has arrived, a project that is not there, and one whose tray is full. */
  async assertRoom(projectId: string, bytes: number): Promise<void> {
    const entries = await this.list(projectId);
    const held = entries.reduce((sum, entry) => sum + entry.size, 0);
    if (entries.length >= MOST_FILES || held + bytes > MOST_BYTES)
      throw new CoombError(
        'tray-full',
        `${counted(entries.length, 'file')} with ${Math.ceil(held / 1024 / 1024)} MB lie in the tray of this project, and it takes ${MOST_FILES} files or ${MOST_BYTES / 1024 / 1024} MB. Import some of them or put them away, then hand in again.`,
      );
  }

  /** Reads a file that lies at `path`; only one that can be read is laid in the tray, the others are thrown away. Throws ReadError. */
  async put(projectId: string, name: string, path: string): Promise<TrayEntry> {
    try {
      const state = await this.states.get(projectId);
      const { size } = statSync(path);
      const { format, content } = await this.reader.read(name, path);
      const id = this.clock.newId();
      const folder = this.folderOf(projectId, id);
      mkdirSync(folder, { recursive: true });
      writeFileSync(join(folder, 'name'), name);
      writeFileSync(join(folder, 'format'), format.label);
      renameSync(path, join(folder, 'bytes'));
      const file: TrayFile = { id, name, size, format, content, readBytes: () => readFile(join(folder, 'bytes')) };
      this.remember(id, size, Promise.resolve(file));
      // Taking over what was read, proposing, and writing the answer out take a while each: others go in between.
      await setImmediate();
      const described = describe(state, file);
      await setImmediate();
      return described;
    } finally {
      rmSync(path, { force: true });
    }
  }

  /** What lies in the tray of a project, the newest first. */
  async list(projectId: string): Promise<TrayFileBrief[]> {
    const folder = join(this.folder, projectId);
    if (!existsSync(folder)) return [];
    const files = readdirSync(folder).flatMap((id) => {
      const read = (part: string) => (existsSync(join(folder, id, part)) ? readFileSync(join(folder, id, part), 'utf8') : '');
      const bytes = statSync(join(folder, id, 'bytes'), { throwIfNoEntry: false });
      return bytes ? [{ id, name: read('name'), size: bytes.size, format: read('format'), at: bytes.mtime.toISOString() }] : [];
    });
    return files.sort((a, b) => b.at.localeCompare(a.at));
  }

  async get(projectId: string, id: string): Promise<TrayEntry> {
    return describe(await this.states.get(projectId), await this.read(projectId, id));
  }

  /** Reads a file of separated values by another separator or quotation mark, from now on. */
  async readAs(projectId: string, id: string, dialect: NonNullable<ReadOptions['dialect']>): Promise<TrayEntry> {
    const { format } = await this.read(projectId, id);
    if (format.id !== 'csv') throw new CoombError('input-invalid', 'Only files of separated values have a separator to choose.');
    writeFileSync(join(this.folderOf(projectId, id), OPTIONS), JSON.stringify({ dialect }));
    this.parsed.delete(id);
    return this.get(projectId, id);
  }

  /** A picture of a file in the tray, by its name there. */
  async getPicture(projectId: string, id: string, name: string): Promise<SourcePicture> {
    const { content } = await this.read(projectId, id);
    const picture = content.type === 'results' ? undefined : contentTypeOf(content.type).pictures?.(content).get(name);
    if (!picture) throw new CoombError('not-found', `There is no picture "${name}" in this file.`);
    return picture;
  }

  async read(projectId: string, id: string): Promise<TrayFile> {
    const folder = this.folderOf(projectId, id);
    if (!existsSync(join(folder, 'bytes')))
      throw new CoombError('not-found', 'This file is not in the tray any more: it was imported, or lay there for more than a week. Hand it in again.');
    const known = this.parsed.get(id);
    if (known) return known.file;
    const name = readFileSync(join(folder, 'name'), 'utf8');
    const path = join(folder, 'bytes');
    const { size } = statSync(path);
    const file = this.reader
      .read(name, path, readOptions(folder))
      .then(({ format, content }): TrayFile => ({ id, name, size, format, content, readBytes: () => readFile(path) }));
    this.remember(id, size, file);
    return file;
  }

  /** Whether it lay there. */
  remove(projectId: string, id: string): boolean {
    this.parsed.delete(id);
    const lay = existsSync(this.folderOf(projectId, id));
    rmSync(this.folderOf(projectId, id), { recursive: true, force: true });
    return lay;
  }

  /** Keeps the content of the newest files ready, the very newest whatever its size. */
  private remember(id: string, size: number, file: Promise<TrayFile>): void {
    this.parsed.set(id, { file, size });
    file.catch(() => this.parsed.delete(id));
    let kept = 0;
    for (const [index, [old, one]] of [...this.parsed].reverse().entries()) {
      kept += one.size;
      if (index > 0 && (index >= PARSED_KEPT || kept > PARSED_BYTES)) this.parsed.delete(old);
    }
  }

  private folderOf(projectId: string, id: string): string {
    return join(this.folder, projectId, id);
  }

  /** What else lies in the folder (a computer's own hidden files, say) is none of the tray's business. */
  private dropOld(): void {
    const oldest = this.clock.now().getTime() - KEPT_HOURS * 3_600_000;
    for (const name of readdirSync(this.incoming)) rmSync(join(this.incoming, name), { recursive: true, force: true });
    for (const project of foldersIn(this.folder))
      for (const id of foldersIn(join(this.folder, project))) {
        const path = join(this.folder, project, id);
        if (statSync(path).mtimeMs < oldest) rmSync(path, { recursive: true, force: true });
      }
  }
}

/** What was said of a file when it was read: it is read the same way again. */
function readOptions(folder: string): ReadOptions {
  const file = join(folder, OPTIONS);
  return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as ReadOptions) : {};
}

function foldersIn(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => (entry.isDirectory() && !entry.name.startsWith('.') ? [entry.name] : []));
}

/** What the person sees of a file: its content and a proposal what to make of it. */
function describe(state: ProjectState, file: TrayFile): TrayEntry {
  const { scheme } = state;
  const { content, format } = file;
  const common = { id: file.id, name: file.name, size: file.size, format: format.id, label: format.label, issues: content.issues };
  if (content.type === 'results') {
    const { results } = content;
    return { ...common, content: { type: 'results', name: results.name, at: results.at, matches: matchCases(state, results.cases) } };
  }
  const type = contentTypeOf(content.type);
  const recipe = type.reads !== null && { recipe: proposeRecipe(scheme, content, type) };
  // What a sort shows is what the contract says of it: each reply is checked against it in the tests.
  return { ...common, content: { type: content.type, ...type.show(scheme, content), ...recipe } as TrayEntry['content'] };
}

/** Reported cases with the test case each one meets. */
export function matchCases(state: ProjectState, cases: Extract<FileContent, { type: 'results' }>['results']['cases']) {
  const kinds = new Set(testKinds(state.scheme));
  const tests = state.items.filter((item) => kinds.has(item.kind) && !item.withdrawn && !item.heading);
  const matches = matchResults(cases, tests);
  return cases.map((one, index) => {
    const match = matches[index]!;
    const test = match.test === null ? undefined : state.items[state.nodeOf.get(match.test)!]!;
    return {
      suite: one.suite,
      name: one.name,
      outcome: one.outcome,
      line: one.line,
      message: one.message,
      test: test ? { id: test.id, reference: test.reference, title: test.title } : null,
      reason: match.reason,
      ambiguous: match.ambiguous,
    };
  });
}
