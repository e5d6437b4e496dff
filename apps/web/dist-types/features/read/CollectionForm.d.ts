/** Starts an empty collection. */
export declare function CollectionForm(): import("react/jsx-runtime").JSX.Element;
