/** The name that changes are recorded under; a click lets the person write their own. */
export declare function PersonName(): import("react/jsx-runtime").JSX.Element;
