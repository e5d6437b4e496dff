import type { Issue } from '@coomb/core';
/** A line for everything that was doubtful or skipped: what, where in the file, what was done. */
export declare function IssueLines({ issues, onShow }: {
    issues: readonly Issue[];
    onShow?: (issue: Issue) => void;
}): import("react/jsx-runtime").JSX.Element;
