/** A file that can't be read at all: says what is wrong and what to do. Nothing was kept of it. */
export class ReadError extends Error {
  override readonly name = 'ReadError';
  readonly code: string;
  constructor(code: string, message: string, options?: ErrorOptions) {
    super(message, options);
    this.code = code;
  }
}
