export declare function ItemPage(): import("react/jsx-runtime").JSX.Element;
