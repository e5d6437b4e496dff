export declare function ChangesPage(): import("react/jsx-runtime").JSX.Element;
