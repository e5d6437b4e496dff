/** Linking: two outlines face to face. */
export declare function BenchPage(): import("react/jsx-runtime").JSX.Element;
