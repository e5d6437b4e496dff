import { createBrowserRouter, type RouteObject } from 'react-router';
import { ProjectsPage } from './features/projects/ProjectsPage';
import { Broken } from './frame/Broken';
import { AtMoment } from './frame/AtMoment';
import { addressesOf, type View } from './shared/view';
import { views } from './views';

/** One address for everything. Views load when they are first opened. */
export const routesOf = (all: readonly View[]): RouteObject[] => [
  { path: '/', element: <ProjectsPage />, errorElement: <Broken /> },
  {
    path: '/p/:project',
    element: <AtMoment views={all} />,
    errorElement: <Broken />,
    children: all.flatMap((view) =>
      addressesOf(view).map((path) => ({
        ...(path === '' ? { index: true as const } : { path }),
        lazy: async () => ({ Component: await view.load() }),
      })),
    ),
  },
];

export const router = createBrowserRouter(routesOf(views));
