/** Every code an error can carry, with the HTTP status it comes as. */
export const errorStatus = {
  'input-invalid': 400,
  'file-unreadable': 422,
  'origin-refused': 403,
  'not-found': 404,
  'changed-meanwhile': 409,
  'past-unchangeable': 409,
  'project-set-aside': 409,
  'link-not-allowed': 409,
  'link-exists': 409,
  'move-refused': 409,
  'nothing-to-undo': 409,
  'undo-refused': 409,
  'job-cancelled': 409,
  'too-large': 413,
  'host-refused': 421,
  'tray-full': 413,
  'too-many': 429,
  'disk-full': 507,
  unavailable: 503,
  'data-damaged': 500,
  internal: 500,
} as const;

export type ErrorCode = keyof typeof errorStatus;

/** A refusal: the message holds the offending value and what is allowed, and may be shown to people. */
export class CoombError extends Error {
  override readonly name = 'CoombError';
  readonly code: ErrorCode;
  readonly details: Record<string, unknown> | undefined;
  constructor(code: ErrorCode, message: string, details?: Record<string, unknown>, options?: ErrorOptions) {
    super(message, options);
    this.code = code;
    this.details = details;
  }
}
