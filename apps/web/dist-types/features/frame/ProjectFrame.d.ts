/** The frame around every view of a project: the course on top, the ledger strip below, the item sheet at the side. */
export declare function ProjectFrame(): import("react/jsx-runtime").JSX.Element;
