import { matchRoutes } from 'react-router';
import { addressesOf, type View } from '../shared/view';

/** The view that an address below the project shows, chosen as the router chooses; null where there is none. */
export function viewAt(views: readonly View[], rest: string): View | null {
  const routes = views.flatMap((view) => addressesOf(view).map((path) => ({ path: `/${path}`, handle: view })));
  const found = matchRoutes(routes, `/${rest}`)?.at(-1);
  return found?.route.handle ?? null;
}

/** The part of a location below the project: `gather/recipes`. */
export const belowProject = (pathname: string): string => pathname.split('/').slice(3).join('/');
