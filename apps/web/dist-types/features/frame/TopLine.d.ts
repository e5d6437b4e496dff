import type { Project } from '../../shared/live/project-queries';
export declare function TopLine({ project, onFind, onKeys }: {
    project: Project;
    onFind: () => void;
    onKeys: () => void;
}): import("react/jsx-runtime").JSX.Element;
