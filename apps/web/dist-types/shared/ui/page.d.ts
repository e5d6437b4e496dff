import type { ReactNode } from 'react';
/** A page below the frame: a quiet heading line with what can be done at its right, then the content, which scrolls by itself. */
export declare function Page({ title, lead, actions, children, fill }: {
    title: string;
    lead?: ReactNode;
    actions?: ReactNode;
    children: ReactNode;
    fill?: boolean;
}): import("react/jsx-runtime").JSX.Element;
