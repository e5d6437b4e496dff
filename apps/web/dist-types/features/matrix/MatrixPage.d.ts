/** Trace matrix: rows × columns, folding outlines with counts, gaps, link and unlink in the cell. */
export declare function MatrixPage(): import("react/jsx-runtime").JSX.Element;
