import { CoombError } from '@coomb/contract';
import type { NextFunction, Request, Response } from 'express';

/**
 * Changing requests must come from our own pages: browsers send `Origin` (and `Sec-Fetch-Site`), and it must be this host.
 * Programs send neither and are let through, for they carry no one else's rights.
 */
export function refuseOtherOrigins(request: Request, _response: Response, next: NextFunction): void {
  if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) return next();
  const { origin, host } = request.headers;
  const site = request.headers['sec-fetch-site'];
  const foreign = (origin !== undefined && hostOf(origin) !== host) || (site !== undefined && site !== 'same-origin' && site !== 'none');
  next(foreign ? new CoombError('origin-refused', `Changes are taken from Coomb's own pages only, not from ${origin ?? 'another site'}.`) : undefined);
}

function hostOf(origin: string): string | undefined {
  try {
    return new URL(origin).host;
  } catch {
    return undefined;
  }
}
