import type { EngineOptions } from './engine.js';

/** ENOSPC as the runtime numbers it. */
const NO_SPACE = 51;

/** A disk that takes so many bytes more and is full then: what a full disk does to the database can be tried without one. */
export function failingDisk(bytes: number): NonNullable<EngineOptions['prepare']> {
  return (runtime) => {
    const { stream_ops: ops } = runtime.NODEFS;
    // The types of the runtime leave out its class of errors.
    const { ErrnoError } = runtime.FS as unknown as { ErrnoError: new (errno: number) => Error };
    const { write } = ops;
    let left = bytes;
    ops.write = (stream, buffer, offset, length, position) => {
      if (length > left) throw new ErrnoError(NO_SPACE);
      left -= length;
      return write(stream, buffer, offset, length, position);
    };
  };
}
