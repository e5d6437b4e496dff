import { type AnyEndpoint, endpoints, needs } from '@coomb/contract';
import { momentOf } from './moment';

/** What is no part of a project's history, or leads through it: always asked as things are now. */
const ALWAYS_NOW = new Set([
  'live',
  'listJobs',
  'getJob',
  'sayWhere',
  'listBaselines',
  'listChanges',
  'getUndo',
  'listPersons',
  'listSavedViews',
  'listProjects',
  'listTray',
  'getUpkeep',
]);
/** Names for moments may be given and taken back while one looks at one. */
const ALLOWED = new Set(['createBaseline', 'withdrawBaseline']);

const nameOf = new Map<AnyEndpoint, string>(Object.entries(endpoints).map(([name, endpoint]) => [endpoint, name]));

/** The change that a call is asked as of; nothing where it is asked as of now, `refused` where it would change what lies behind. */
export function askedAsOf(endpoint: AnyEndpoint, project: string): number | 'refused' | undefined {
  const moment = project ? momentOf(project) : undefined;
  const name = nameOf.get(endpoint);
  if (!moment || name === undefined || ALWAYS_NOW.has(name) || ALLOWED.has(name)) return undefined;
  return needs[name] === 'read' ? moment.seq : 'refused';
}
