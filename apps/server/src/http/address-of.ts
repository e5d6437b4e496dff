import type { Request } from 'express';

/** The address that whoever asks uses, which was checked on the way in. */
export function addressOf(request: Request): string {
  return `${request.headers['x-forwarded-proto'] === 'https' ? 'https' : 'http'}://${request.headers.host}`;
}
