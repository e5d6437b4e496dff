import { counted, figure } from '@coomb/core';
import type { Project } from '../../shared/live/project-queries';

export interface Stage {
  id: keyof Project['waiting'];
  label: string;
  /** What waits there, in words: "31 open". */
  waits: (count: number) => string;
  views: { label: string; path: string }[];
}

/** The course of the work: five stages, each with its own views. The first view is the stage's own address. */
export const course: readonly Stage[] = [
  {
    id: 'gather',
    label: 'Gather',
    waits: (count) => counted(count, 'source'),
    views: [
      { label: 'Sources', path: 'gather' },
      { label: 'Recipes', path: 'gather/recipes' },
    ],
  },
  {
    id: 'shape',
    label: 'Shape',
    waits: (count) => (count === 0 ? '' : `${count} untitled`),
    views: [
      { label: 'Read', path: 'shape' },
      { label: 'Contents', path: 'shape/contents' },
      { label: 'Scheme', path: 'shape/scheme' },
    ],
  },
  {
    id: 'link',
    label: 'Link',
    waits: (count) => `${figure(count)} to link`,
    views: [
      { label: 'Bench', path: 'link' },
      { label: 'Trace matrix', path: 'link/matrix' },
    ],
  },
  {
    id: 'check',
    label: 'Check',
    waits: (count) => `${figure(count)} open`,
    views: [
      { label: 'Readiness', path: 'check' },
      { label: 'Open findings', path: 'check/figure/open' },
    ],
  },
  {
    id: 'publish',
    label: 'Publish',
    waits: (count) => (count === 0 ? 'up to date' : `${counted(count, 'change')} to report`),
    views: [{ label: 'Reports', path: 'publish' }],
  },
];
