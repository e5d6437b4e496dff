import type { Project } from '../../shared/live/project-queries';
export interface Stage {
    id: keyof Project['waiting'];
    label: string;
    /** What waits there, in words: "31 open". */
    waits: (count: number) => string;
    views: {
        label: string;
        path: string;
    }[];
}
/** The course of the work: five stages, each with its own views. The first view is the stage's own address. */
export declare const course: readonly Stage[];
