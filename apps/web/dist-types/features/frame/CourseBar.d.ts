import type { Project } from '../../shared/live/project-queries';
/** The course of the work as one line: the stage you are in opens to its views, the others show what waits there. */
export declare function CourseBar({ project }: {
    project: Project;
}): import("react/jsx-runtime").JSX.Element;
