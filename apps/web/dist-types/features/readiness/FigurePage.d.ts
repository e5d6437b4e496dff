/** The very items behind a number. */
export declare function FigurePage(): import("react/jsx-runtime").JSX.Element;
