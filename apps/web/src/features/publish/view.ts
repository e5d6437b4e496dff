import { counted } from '@coomb/core';
import type { View } from '../../shared/view';

export const reportsView: View = {
  stage: 'publish',
  name: 'Status reports',
  help: 'Dated and frozen: figures, coverage, gaps, matrices, and what changed since the report before.',
  path: 'publish',
  waits: (project) => (project.waiting.publish === 0 ? 'up to date' : `${counted(project.waiting.publish, 'change')} to report`),
  load: async () => (await import('./ReportsPage')).ReportsPage,
};

export const reportView: View = {
  stage: 'publish',
  name: 'Report',
  help: 'A report as it was written, and as files.',
  addresses: ['publish/:report'],
  load: async () => (await import('./ReportPage')).ReportPage,
};
