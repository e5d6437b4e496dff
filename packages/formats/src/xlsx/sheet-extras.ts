import { columnName, type Issue } from '@coomb/core';
import type { Archive } from '../archive/zip.js';
import { localName, walkXml } from '../xml/walk-xml.js';

/** Notes on cells that are told one by one. */
const MOST_NOTES = 200;

/** Places of one sheet that share an oddity: told once, with the first few of them. */
export class Oddities {
  private readonly found = new Map<string, { message: string; severity: Issue['severity']; places: string[]; count: number }>();

  constructor(private readonly sheet: string) {}

  add(code: string, severity: Issue['severity'], message: string, row: number, column: number): void {
    const known = this.found.get(code) ?? { message, severity, places: [], count: 0 };
    this.found.set(code, known);
    known.count++;
    if (known.places.length < 8) known.places.push(column < 0 ? `row ${row + 1}` : `${columnName(column)}${row + 1}`);
  }

  issues(): Issue[] {
    return [...this.found].map(([code, { message, severity, places, count }]) => ({
      severity,
      code,
      at: `${this.sheet}!${places[0]}`,
      message: count === 1 ? message : `${message} (${count} places: ${places.join(', ')}${count > places.length ? ' …' : ''})`,
    }));
  }
}

/** What stands beside the cells of a sheet and is not read into items: notes that people wrote on cells, pictures and charts. */
export async function readSheetExtras(archive: Archive, part: string, sheet: string): Promise<Issue[]> {
  const relations = part.replace(/([^/]+)$/, '_rels/$1.rels');
  if (!archive.has(relations)) return [];
  const issues: Issue[] = [];
  const notes: string[] = [];
  await walkXml(await archive.stream(relations), {
    open(name, { Type = '', Target = '' }) {
      if (localName(name) !== 'Relationship') return;
      if (/\/comments$/.test(Type)) notes.push(resolve(part, Target));
      else if (/\/drawing$/.test(Type))
        issues.push({
          severity: 'note',
          code: 'sheet-pictures',
          at: sheet,
          message: 'Pictures and charts on the sheet were left out; they stay in the stored file',
        });
    },
    close() {},
  });
  for (const target of notes) if (archive.has(target)) issues.push(...(await readNotes(archive, target, sheet)));
  return issues;
}

async function readNotes(archive: Archive, part: string, sheet: string): Promise<Issue[]> {
  const issues: Issue[] = [];
  let [at, text, reading, count] = ['', '', false, 0];
  await walkXml(await archive.stream(part), {
    open(name, attributes) {
      const local = localName(name);
      if (local === 'comment') [at, text] = [attributes.ref ?? '', ''];
      else if (local === 't') reading = true;
    },
    close(name) {
      const local = localName(name);
      if (local === 't') reading = false;
      else if (local === 'comment' && text.trim() && ++count <= MOST_NOTES)
        issues.push({
          severity: 'note',
          code: 'cell-note',
          at: `${sheet}!${at}`,
          message: `A note on the cell says "${text.trim()}"; it becomes no part of an item`,
        });
    },
    text(words) {
      if (reading) text += words;
    },
  });
  if (count > MOST_NOTES) issues.push({ severity: 'note', code: 'cell-note', at: sheet, message: `${count - MOST_NOTES} more notes on cells are not listed` });
  return issues;
}

function resolve(part: string, target: string): string {
  if (target.startsWith('/')) return target.slice(1);
  const folders = part.split('/').slice(0, -1);
  for (const step of target.split('/'))
    if (step === '..') folders.pop();
    else if (step !== '.') folders.push(step);
  return folders.join('/');
}
