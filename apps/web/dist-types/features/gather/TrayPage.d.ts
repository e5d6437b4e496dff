/** A file in the tray: what it holds and what it would become. Nothing is stored until Import. */
export declare function TrayPage(): import("react/jsx-runtime").JSX.Element;
