import { type ComponentType, createContext, useContext } from 'react';
import type { Project } from './live/project-queries';

/** The course of the work: five stages, in order. What waits in each is counted by the server. */
export const stages = [
  { id: 'gather', label: 'Gather' },
  { id: 'shape', label: 'Shape' },
  { id: 'link', label: 'Link' },
  { id: 'check', label: 'Check' },
  { id: 'publish', label: 'Publish' },
] as const satisfies readonly { id: keyof Project['waiting']; label: string }[];

export type StageId = (typeof stages)[number]['id'];

/**
 * All that the frame knows of a view. A view lies in a folder of its own under `features`, says this in its `view.ts`, and is
 * named once in `src/views.ts`: addresses, the course, key help, find anything, window titles and headings follow from it.
 */
export interface View {
  /** The stage it belongs to; `home` for what belongs to the project as a whole. */
  stage: StageId | 'home';
  /** What it is called: in the course, in find anything, in the key help, as its heading and in the title of the window. */
  name: string;
  /** What one does here, in one sentence: shown beside the views of its stage and in the key help. */
  help: string;
  /** Where its entry in the course leads, below the project. Views that show something named (`:source`) have no entry. */
  path?: string;
  /** The addresses it answers to below the project, when they are others than `path`. */
  addresses?: readonly string[];
  /** Whether it shows what is seen through a lens; others say that they show everything. */
  looksThrough?: true;
  keys?: readonly (readonly [key: string, what: string])[];
  /** What waits here, in words: "31 open"; nothing when nothing waits. The first view of a stage that says it speaks for the stage. */
  waits?: (project: Project) => string;
  /** Loads the page when it is first opened. */
  load: () => Promise<ComponentType>;
}

export const addressesOf = (view: View): readonly string[] => view.addresses ?? [view.path ?? ''];

const Here = createContext<View | null>(null);
export const HereProvider = Here.Provider;

/** The view that is shown, if it is one of the frame's. */
export const useView = (): View | null => useContext(Here);
