import { isIP } from 'node:net';
import { networkInterfaces } from 'node:os';
import { CoombError } from '@coomb/contract';
import type { NextFunction, Request, Response } from 'express';

export interface Naming {
  /** Address that the server listens on. */
  host: string;
  /** Further names that people reach it by: `weir.example`, or `https://weir.example` behind a proxy that encrypts. */
  names: readonly string[];
}

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];
const ANY = ['0.0.0.0', '::', ''];

export const isLoopback = (host: string) => LOOPBACK.includes(host) || /^127\.\d+\.\d+\.\d+$/.test(host);

/**
 * Takes requests only under names that are known to mean this server. A foreign page may let a name of its own point here, and would read
 * and change everything as if it were ours: the name is what gives it away. Changes must come from our own pages too: browsers send
 * `Origin` (and `Sec-Fetch-Site`). Programs send neither and are let through, for they carry no one else's rights.
 */
export function allowHosts({ host, names }: Naming): (request: Request, response: Response, next: NextFunction) => void {
  const named = names.map(parseName);
  const known = new Set([...LOOPBACK, ...(ANY.includes(host) ? [] : [host.toLowerCase()]), ...named.map((one) => one.host)]);
  const encrypted = new Set(named.filter((one) => one.encrypted).map((one) => one.host));
  // An address is no name that somebody could point elsewhere; those of this machine mean this server when it listens on all of them.
  const isOwnAddress = (name: string) => ANY.includes(host) && isIP(name) !== 0 && ownAddresses().has(name);
  return (request, _response, next) => {
    const name = hostName(request.headers.host);
    if (name === undefined || !(known.has(name) || isOwnAddress(name)))
      return next(
        new CoombError(
          'host-refused',
          `Coomb does not answer under the name "${String(request.headers.host ?? '').slice(0, 100)}". It is known as ${[...known].join(', ')}; start it with --name to add one.`,
        ),
      );
    const { origin } = request.headers;
    const site = request.headers['sec-fetch-site'];
    const own = [`http://${request.headers.host}`, ...(encrypted.has(name) ? [`https://${request.headers.host}`] : [])];
    const isForeign = (origin !== undefined && !own.includes(origin)) || (site !== undefined && site !== 'same-origin' && site !== 'none');
    if (isForeign && !['GET', 'HEAD', 'OPTIONS'].includes(request.method))
      return next(new CoombError('origin-refused', `Changes are taken from Coomb's own pages only, not from ${origin ?? 'another site'}.`));
    next();
  };
}

/** The name of a Host header without its port; undefined for what is none. */
function hostName(header: string | undefined): string | undefined {
  const match = /^(?:\[([0-9a-f:.]+)\]|([^:[\]/@\s]+))(?::\d{1,5})?$/i.exec(header ?? '');
  return (match?.[1] ?? match?.[2])?.toLowerCase().replace(/\.$/, '');
}

function parseName(name: string): { host: string; encrypted: boolean } {
  const url = /^(https?):\/\/(.*)$/i.exec(name);
  return { host: hostName((url?.[2] ?? name).replace(/\/$/, '')) ?? name.toLowerCase(), encrypted: url?.[1]?.toLowerCase() === 'https' };
}

function ownAddresses(): Set<string> {
  return new Set(Object.values(networkInterfaces()).flatMap((all) => (all ?? []).map((one) => one.address.toLowerCase())));
}
