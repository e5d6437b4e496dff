import { AsyncLocalStorage } from 'node:async_hooks';
import type { NextFunction, Request, Response } from 'express';

/** What is known of a request for as long as it is worked on. */
interface Caller {
  /** A browser's own mark, which stays when the person writes another name. Programs send none; their names tell them apart. */
  hand: string | null;
  /** Number of the change that everything is read as of; the present when unsaid. */
  asOf: number | undefined;
  /** Number of the change that whoever asks had seen of the project; unsaid by programs that do not look first. */
  basedOn: number | undefined;
  /** Id of the person; the name where nobody is known by it and nothing is changed. */
  person: string;
}

const callers = new AsyncLocalStorage<Caller>();

/** Remembers who asks, and as of when, until the request is answered. */
export function rememberCaller(request: Request, _response: Response, next: NextFunction): void {
  const header = request.headers['x-coomb-hand'];
  callers.run(
    { hand: typeof header === 'string' && /^[\w-]{8,64}$/.test(header) ? header : null, asOf: undefined, basedOn: readBase(request), person: '' },
    next,
  );
}

function readBase(request: Request): number | undefined {
  const header = request.headers['x-coomb-based-on'];
  return typeof header === 'string' && /^\d{1,9}$/.test(header) ? Number(header) : undefined;
}

/** The change that this request is based on, where it says so. */
export function presentBase(): number | undefined {
  return callers.getStore()?.basedOn;
}

/** Who asks, once that was found out. */
export function rememberPerson(person: string): void {
  const caller = callers.getStore();
  if (caller) caller.person = person;
}

export function presentPerson(): string {
  return callers.getStore()?.person ?? '';
}

export function presentHand(): string | null {
  return callers.getStore()?.hand ?? null;
}

/** Lets the rest of this request read as of a change. */
export function readAsOf(seq: number): void {
  const caller = callers.getStore();
  if (caller) caller.asOf = seq;
}

/** Reads as of a change for as long as something runs, within a request that otherwise reads as of another. */
export function whileAt<Result>(seq: number, run: () => Promise<Result>): Promise<Result> {
  const caller = callers.getStore() ?? { hand: null, asOf: undefined, basedOn: undefined, person: '' };
  return callers.run({ ...caller, asOf: seq }, run);
}

/** The change that this request reads as of, if it does not read the present. */
export function presentMoment(): number | undefined {
  return callers.getStore()?.asOf;
}
