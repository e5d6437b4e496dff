/** The checklist in plain sentences, each with the number that decides it; every number opens its items. */
export declare function ReadinessPage(): import("react/jsx-runtime").JSX.Element;
