/** A report as published, shown as readers get it. */
export declare function ReportPage(): import("react/jsx-runtime").JSX.Element;
