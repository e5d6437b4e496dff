import { fdatasyncSync, fsyncSync } from 'node:fs';
import type { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';

/** An open file of the database's file system: `nfd` is the descriptor of the file behind it. */
export interface FsStream {
  nfd: number;
  node: FsNode;
}
export interface FsNode {
  mode: number;
  name: string;
  parent: FsNode;
  mount: { opts: { root: string } };
}

/** The part of the file system layer that writes, as the database's runtime has it. */
export interface NodeFsLayer {
  realPath: (node: FsNode) => string;
  node_ops: {
    mknod: (parent: FsNode, name: string, mode: number, dev: number) => FsNode;
    setattr: (node: FsNode, attr: { size?: number }) => void;
    rename: (node: FsNode, newDir: FsNode, newName: string) => void;
    unlink: (parent: FsNode, name: string) => void;
    rmdir: (parent: FsNode, name: string) => void;
  };
  stream_ops: {
    setattr: (stream: FsStream, attr: { size?: number }) => void;
    write: (stream: FsStream, buffer: Int8Array, offset: number, length: number, position: number) => number;
    open: (stream: FsStream & { flags: number }) => void;
    fsync?: (stream: FsStream) => number;
  };
}

/** What the runtime hands to those who prepare it. */
export interface RuntimeModule {
  NODEFS: NodeFsLayer;
  FS: { isDir: (mode: number) => boolean };
}

/**
 * The database's folder on disk, with the one thing its own layer lacks: what the database asks to be synced is synced. It then keeps its own
 * order (control file before log, log before pages), which no syncing from outside can.
 */
export class DurableFs extends NodeFS {
  /** `prepare` may change the layer further, before the database starts. */
  constructor(
    dataDir: string,
    private readonly prepare: (runtime: RuntimeModule) => void = () => {},
  ) {
    super(dataDir);
  }

  override async init(pg: PGlite, options: Parameters<NodeFS['init']>[1]): ReturnType<NodeFS['init']> {
    const made = await super.init(pg, options);
    const sync = (module: unknown) => {
      const runtime = module as RuntimeModule;
      runtime.NODEFS.stream_ops.fsync = ({ nfd, node }) => {
        if (runtime.FS.isDir(node.mode)) fsyncSync(nfd);
        else fdatasyncSync(nfd);
        return 0;
      };
      this.prepare(runtime);
    };
    return { emscriptenOpts: { ...made.emscriptenOpts, preRun: [...((made.emscriptenOpts.preRun as (() => void)[]) ?? []), sync as () => void] } };
  }
}
