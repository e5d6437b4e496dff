/** A collection typeset for reading, with its contents at the left. */
export declare function ReadPage(): import("react/jsx-runtime").JSX.Element;
