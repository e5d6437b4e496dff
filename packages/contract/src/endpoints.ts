import * as baselines from './baselines.js';
import * as boundary from './boundary.js';
import * as changes from './changes.js';
import * as check from './check.js';
import * as comparing from './comparing.js';
import * as composition from './composition.js';
import * as colourKey from './colour-key.js';
import * as drawings from './drawings.js';
import type { AnyEndpoint } from './endpoint.js';
import * as errands from './errands.js';
import * as findings from './findings.js';
import * as impact from './impact.js';
import * as linkList from './link-list.js';
import * as suspects from './suspects.js';
import * as exports from './exports.js';
import * as gather from './gather.js';
import * as items from './items.js';
import * as lens from './lens.js';
import * as links from './links.js';
import * as madeDrawings from './made-drawings.js';
import * as matrix from './matrix.js';
import * as persons from './persons.js';
import * as pictures from './pictures.js';
import * as projects from './projects.js';
import * as recipes from './recipes.js';
import * as related from './related.js';
import * as register from './register.js';
import * as reports from './reports.js';
import * as runs from './runs.js';
import * as savedViews from './saved-views.js';
import * as schemeChanges from './scheme-changes.js';
import * as structure from './structure.js';
import * as sources from './sources.js';
import * as traceTree from './trace-tree.js';
import * as usages from './usages.js';
import * as waitingEnds from './waiting-ends.js';
import * as upkeep from './upkeep.js';

function isEndpoint(value: unknown): value is AnyEndpoint {
  return typeof value === 'object' && value !== null && 'method' in value && 'path' in value && 'reply' in value;
}

/** Every call of the interface by its name; routes, client and OpenAPI document derive from it. */
export const endpoints: Record<string, AnyEndpoint> = Object.fromEntries(
  Object.entries<unknown>({
    ...persons,
    ...savedViews,
    ...pictures,
    ...projects,
    ...items,
    ...links,
    ...related,
    ...gather,
    ...check,
    ...baselines,
    ...changes,
    ...drawings,
    ...madeDrawings,
    ...composition,
    ...boundary,
    ...traceTree,
    ...recipes,
    ...lens,
    ...colourKey,
    ...matrix,
    ...register,
    ...comparing,
    ...structure,
    ...reports,
    ...runs,
    ...schemeChanges,
    ...sources,
    ...exports,
    ...usages,
    ...waitingEnds,
    ...upkeep,
    ...errands,
    ...findings,
    ...impact,
    ...linkList,
    ...suspects,
  }).filter((entry): entry is [string, AnyEndpoint] => isEndpoint(entry[1])),
);
