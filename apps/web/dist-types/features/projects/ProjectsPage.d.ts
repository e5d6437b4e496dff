export declare function ProjectsPage(): import("react/jsx-runtime").JSX.Element;
