import { allLinksView } from './features/all-links/view';
import { benchView } from './features/bench/view';
import { changesView, changeView } from './features/changes/view';
import { contentsView } from './features/contents/view';
import { compareView, gatherView, runView, trayView } from './features/gather/view';
import { comparingView } from './features/comparing/view';
import { compositionView } from './features/composition/view';
import { boundaryView } from './features/boundary/view';
import { drawingsView, drawingView, newDrawingView } from './features/drawings/view';
import { itemView } from './features/item-sheet/view';
import { findingsListView } from './features/findings/view';
import { inHandView } from './features/in-hand/view';
import { impactView } from './features/impact/view';
import { matrixView } from './features/matrix/view';
import { reportsView, reportView } from './features/publish/view';
import { readView } from './features/read/view';
import { findingsView, readinessView } from './features/readiness/view';
import { realisationView } from './features/realisation/view';
import { recipesView } from './features/recipes/view';
import { registerView } from './features/register/view';
import { schemeView } from './features/scheme/view';
import { sectionView } from './features/section/view';
import { sourceView } from './features/source/view';
import { searchView } from './features/search/view';
import { structureView } from './features/structure/view';
import { suspectsView } from './features/suspects/view';
import { traceTreeView } from './features/trace-tree/view';
import type { View } from './shared/view';

/** Every view of a project, in the order in which the course lists them. A new view is a folder with a `view.ts`, and a line here. */
export const views: readonly View[] = [
  sectionView,
  changesView,
  comparingView,
  changeView,
  itemView,
  searchView,
  gatherView,
  recipesView,
  sourceView,
  trayView,
  compareView,
  runView,
  readView,
  registerView,
  drawingsView,
  newDrawingView,
  drawingView,
  compositionView,
  boundaryView,
  structureView,
  contentsView,
  schemeView,
  benchView,
  suspectsView,
  allLinksView,
  realisationView,
  matrixView,
  traceTreeView,
  impactView,
  readinessView,
  findingsListView,
  inHandView,
  findingsView,
  reportsView,
  reportView,
];
