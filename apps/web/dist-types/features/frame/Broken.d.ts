/** Shown when a page cannot be shown at all: an address that leads nowhere, or a fault. */
export declare function Broken(): import("react/jsx-runtime").JSX.Element;
