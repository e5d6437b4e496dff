export declare function GatherPage(): import("react/jsx-runtime").JSX.Element;
