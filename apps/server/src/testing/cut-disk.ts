import { closeSync, existsSync, ftruncateSync, mkdirSync, openSync, renameSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { copyTree } from '../database/copy-tree.js';
import type { EngineOptions } from '../database/engine.js';

type Operation =
  | { type: 'write'; path: string; position: number; bytes: Buffer }
  | { type: 'truncate'; path: string; size: number }
  | { type: 'make'; path: string; isFolder: boolean }
  | { type: 'rename'; path: string; to: string }
  | { type: 'remove'; path: string; isFolder: boolean }
  | { type: 'sync'; path: string };

/** What of the unsynced a cut leaves: none of it, random pieces of 4 kB, or random pieces of everything but the log. */
export type Kept = 'nothing' | 'pieces' | 'pieces but the log';

const PIECE = 4096;

/** A folder whose every write and sync is recorded, so that the disk can be rebuilt as a cut of power at any moment may have left it. */
export class CutDisk {
  private readonly log: Operation[] = [];

  constructor(
    private readonly start: string,
    readonly folder: string,
  ) {
    copyTree(start, folder);
  }

  get operations(): number {
    return this.log.length;
  }

  /** Puts the recorder into the file system layer of a database that is about to start. */
  readonly record: NonNullable<EngineOptions['prepare']> = ({ NODEFS, FS }) => {
    const name = (path: string) => relative(this.folder, path);
    const { node_ops: nodes, stream_ops: streams } = NODEFS;
    const before = { ...nodes, write: streams.write, setStream: streams.setattr, fsync: streams.fsync! };
    streams.write = (stream, buffer, offset, length, position) => {
      const bytes = Buffer.from(buffer.buffer, buffer.byteOffset + offset, length);
      const written = before.write(stream, buffer, offset, length, position);
      this.log.push({ type: 'write', path: name(NODEFS.realPath(stream.node)), position, bytes: Buffer.from(bytes.subarray(0, written)) });
      return written;
    };
    streams.setattr = (stream, attr) => {
      before.setStream(stream, attr);
      if (attr.size !== undefined) this.log.push({ type: 'truncate', path: name(NODEFS.realPath(stream.node)), size: attr.size });
    };
    streams.fsync = (stream) => {
      const result = before.fsync(stream);
      this.log.push({ type: 'sync', path: name(NODEFS.realPath(stream.node)) });
      return result;
    };
    nodes.setattr = (node, attr) => {
      before.setattr(node, attr);
      if (attr.size !== undefined) this.log.push({ type: 'truncate', path: name(NODEFS.realPath(node)), size: attr.size });
    };
    nodes.mknod = (parent, child, mode, dev) => {
      const node = before.mknod(parent, child, mode, dev);
      this.log.push({ type: 'make', path: name(NODEFS.realPath(node)), isFolder: FS.isDir(mode) });
      return node;
    };
    nodes.rename = (node, newDir, newName) => {
      const path = name(NODEFS.realPath(node));
      before.rename(node, newDir, newName);
      this.log.push({ type: 'rename', path, to: name(join(NODEFS.realPath(newDir), newName)) });
    };
    nodes.unlink = (parent, child) => {
      before.unlink(parent, child);
      this.log.push({ type: 'remove', path: name(join(NODEFS.realPath(parent), child)), isFolder: false });
    };
    nodes.rmdir = (parent, child) => {
      before.rmdir(parent, child);
      this.log.push({ type: 'remove', path: name(join(NODEFS.realPath(parent), child)), isFolder: true });
    };
  };

  /** Rebuilds what lies on the disk after a cut at operation `at`, in a new folder. */
  cut(to: string, at: number, kept: Kept, random: () => number): void {
    copyTree(this.start, to);
    for (const operation of this.survivors(at, kept, random)) apply(to, operation);
  }

  /** How many written bytes survive a cut. */
  bytesAt(at: number, kept: Kept, random: () => number, { ignoreSyncs = false } = {}): number {
    return this.survivors(at, kept, random, ignoreSyncs).reduce((sum, one) => sum + (one.type === 'write' ? one.bytes.length : 0), 0);
  }

  /**
   * Operations whose effect is on the disk. A synced file has all that was written to it before, under the name that it has; a synced
   * folder has the names in it. Names that were never synced come in order up to a random one: file systems keep a journal of names.
   */
  private survivors(at: number, kept: Kept, random: () => number, ignoreSyncs = false): Operation[] {
    const log = this.log.slice(0, at);
    const syncedUpTo = new Map<string, number>();
    let namesUpTo = -1;
    log.forEach((operation, index) => {
      if (ignoreSyncs || operation.type !== 'sync') return;
      // A rename takes what was synced along to the new name; here each name is looked at by itself, and the database syncs again.
      syncedUpTo.set(operation.path, index);
      namesUpTo = index;
    });
    const keepsNames = Math.max(namesUpTo, kept === 'nothing' ? -1 : Math.floor(random() * log.length));
    const renames = log.filter((one) => one.type === 'rename');
    const isSynced = (path: string, index: number): boolean =>
      (syncedUpTo.get(path) ?? -1) > index ||
      renames.some((one) => one.type === 'rename' && one.path === path && log.indexOf(one) > index && (syncedUpTo.get(one.to) ?? -1) > index);
    return log.flatMap((operation, index): Operation[] => {
      if (operation.type === 'sync') return [];
      if (operation.type !== 'write') return index <= keepsNames || isSynced(operation.path, index) ? [operation] : [];
      if (isSynced(operation.path, index)) return [operation];
      if (kept === 'nothing' || (kept === 'pieces but the log' && operation.path.startsWith('pg_wal'))) return [];
      return splitPieces(operation).filter(() => random() < 0.5);
    });
  }
}

function splitPieces(operation: Extract<Operation, { type: 'write' }>): Operation[] {
  const pieces: Operation[] = [];
  for (let offset = 0; offset < operation.bytes.length; ) {
    const length = Math.min(operation.bytes.length - offset, PIECE - ((operation.position + offset) % PIECE));
    pieces.push({ ...operation, position: operation.position + offset, bytes: operation.bytes.subarray(offset, offset + length) });
    offset += length;
  }
  return pieces;
}

function apply(folder: string, operation: Operation): void {
  const path = join(folder, operation.path);
  switch (operation.type) {
    case 'make':
      if (operation.isFolder) mkdirSync(path, { recursive: true });
      else if (existsSync(dirname(path)) && !existsSync(path)) writeFileSync(path, '');
      return;
    case 'rename':
      if (existsSync(path)) renameSync(path, join(folder, operation.to));
      return;
    case 'remove':
      rmSync(path, { force: true, recursive: operation.isFolder });
      return;
    case 'write':
    case 'truncate': {
      if (!existsSync(path)) return;
      const handle = openSync(path, 'r+');
      if (operation.type === 'truncate') ftruncateSync(handle, operation.size);
      else writeSync(handle, operation.bytes, 0, operation.bytes.length, operation.position);
      closeSync(handle);
      return;
    }
    case 'sync':
      return;
  }
}
