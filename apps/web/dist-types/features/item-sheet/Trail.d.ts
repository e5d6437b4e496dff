import type { TrailLink } from '@coomb/contract';
/** Links upstream and downstream of an item, grouped by phrase; suspect ones say what changed and can be confirmed. */
export declare function Trail({ project, title, empty, links }: {
    project: string;
    title: string;
    empty: string;
    links: TrailLink[];
}): import("react/jsx-runtime").JSX.Element;
