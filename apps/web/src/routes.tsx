import { createBrowserRouter } from 'react-router';
import { ProjectFrame } from './features/frame/ProjectFrame';
import { ProjectsPage } from './features/projects/ProjectsPage';
import { Broken } from './features/frame/Broken';

/** One address for everything. Views load when they are first opened. */
export const router = createBrowserRouter([
  { path: '/', element: <ProjectsPage />, errorElement: <Broken /> },
  {
    path: '/p/:project',
    element: <ProjectFrame />,
    errorElement: <Broken />,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('./features/section/SectionPage')).SectionPage }) },
      { path: 'gather', lazy: async () => ({ Component: (await import('./features/gather/GatherPage')).GatherPage }) },
      { path: 'gather/recipes', lazy: async () => ({ Component: (await import('./features/recipes/RecipesPage')).RecipesPage }) },
      { path: 'gather/sources/:source', lazy: async () => ({ Component: (await import('./features/source/SourcePage')).SourcePage }) },
      { path: 'gather/runs/:run', lazy: async () => ({ Component: (await import('./features/gather/RunPage')).RunPage }) },
      { path: 'gather/:tray/compare', lazy: async () => ({ Component: (await import('./features/gather/again/ComparePage')).ComparePage }) },
      { path: 'gather/:tray', lazy: async () => ({ Component: (await import('./features/gather/TrayPage')).TrayPage }) },
      { path: 'shape', lazy: async () => ({ Component: (await import('./features/read/ReadPage')).ReadPage }) },
      { path: 'shape/contents', lazy: async () => ({ Component: (await import('./features/contents/ContentsPage')).ContentsPage }) },
      { path: 'shape/scheme', lazy: async () => ({ Component: (await import('./features/scheme/SchemePage')).SchemePage }) },
      { path: 'shape/:collection', lazy: async () => ({ Component: (await import('./features/read/ReadPage')).ReadPage }) },
      { path: 'link', lazy: async () => ({ Component: (await import('./features/bench/BenchPage')).BenchPage }) },
      { path: 'link/matrix', lazy: async () => ({ Component: (await import('./features/matrix/MatrixPage')).MatrixPage }) },
      { path: 'check', lazy: async () => ({ Component: (await import('./features/readiness/ReadinessPage')).ReadinessPage }) },
      { path: 'check/figure/:figure', lazy: async () => ({ Component: (await import('./features/readiness/FigurePage')).FigurePage }) },
      { path: 'publish', lazy: async () => ({ Component: (await import('./features/publish/ReportsPage')).ReportsPage }) },
      { path: 'publish/:report', lazy: async () => ({ Component: (await import('./features/publish/ReportPage')).ReportPage }) },
      { path: 'changes', lazy: async () => ({ Component: (await import('./features/changes/ChangesPage')).ChangesPage }) },
      { path: 'changes/:seq', lazy: async () => ({ Component: (await import('./features/changes/BatchPage')).BatchPage }) },
      { path: 'items/:item', lazy: async () => ({ Component: (await import('./features/item-sheet/ItemPage')).ItemPage }) },
    ],
  },
]);
