import type { DrawingBrief } from '@coomb/contract';

/** What sort of drawing it is, as the standards call it. */
export const sortWords: Record<DrawingBrief['sort'], string> = {
  class: 'classes and blocks',
  component: 'components',
  structure: 'inner structure',
  package: 'packages',
  useCase: 'use cases',
  activity: 'activity',
  states: 'states',
  sequence: 'sequence',
  requirement: 'requirements',
  object: 'instances',
  deployment: 'deployment',
  process: 'process',
  decisions: 'decisions',
  signals: 'blocks and signals',
  other: 'drawing',
};
