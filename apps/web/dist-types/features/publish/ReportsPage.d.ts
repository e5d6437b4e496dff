export declare function ReportsPage(): import("react/jsx-runtime").JSX.Element;
