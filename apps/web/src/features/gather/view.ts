import { counted } from '@coomb/core';
import type { View } from '../../shared/view';

export const gatherView: View = {
  stage: 'gather',
  name: 'Sources',
  help: 'Files that items and results came from. The originals are kept beside what came of them.',
  path: 'gather',
  waits: (project) => counted(project.waiting.gather, 'source'),
  load: async () => (await import('./files/GatherPage')).GatherPage,
};

export const trayView: View = {
  stage: 'gather',
  name: 'File in the tray',
  help: 'The file as people read it, the recipe, and what becomes of it.',
  addresses: ['gather/:tray'],
  load: async () => (await import('./tray/TrayPage')).TrayPage,
};

export const compareView: View = {
  stage: 'gather',
  name: 'Newer version',
  help: 'What changed since the version before, to be taken or left.',
  addresses: ['gather/:tray/compare'],
  keys: [
    ['↑ ↓', 'Move from difference to difference'],
    ['T', 'Take it, or leave it'],
  ],
  load: async () => (await import('./comparison/ComparePage')).ComparePage,
};

export const runView: View = {
  stage: 'gather',
  name: 'Test run',
  help: 'What a test run said, case by case.',
  addresses: ['gather/runs/:run'],
  load: async () => (await import('./runs/RunPage')).RunPage,
};
