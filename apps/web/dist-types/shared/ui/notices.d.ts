/** A short word that something was done or refused; it goes by itself. */
export declare function notify(text: string, type?: 'success' | 'error' | 'info'): void;
export declare function notifyError(error: unknown): void;
export declare function Notices(): import("react/jsx-runtime").JSX.Element;
