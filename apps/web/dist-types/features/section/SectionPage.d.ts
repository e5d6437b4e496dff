/** Home of a project: the cross-section through its layers. */
export declare function SectionPage(): import("react/jsx-runtime").JSX.Element;
