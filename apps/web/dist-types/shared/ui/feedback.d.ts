import type { ReactNode } from 'react';
export declare function Loading({ what }: {
    what: string;
}): import("react/jsx-runtime").JSX.Element;
/** Says what happened and what to do; never hides what is still there. */
export declare function ErrorNote({ error, retry }: {
    error: unknown;
    retry?: (() => void) | undefined;
}): import("react/jsx-runtime").JSX.Element;
export declare function EmptyState({ title, children, action }: {
    title: string;
    children?: ReactNode;
    action?: ReactNode;
}): import("react/jsx-runtime").JSX.Element;
