import { getItem, type ReplyOf } from '@coomb/contract';
export type Sheet = ReplyOf<typeof getItem>;
export declare function useSheet(project: string, item: string): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    node: number;
    collection: string;
    kind: string;
    reference: string;
    title: string;
    html: string;
    fields: Record<string, string | number | boolean | string[] | null>;
    heading: boolean;
    parent: string | null;
    revision: number;
    withdrawn: boolean;
    state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
    createdAt: string;
    changedAt: string;
    changedBy: string;
    origin: string;
    place: {
        block?: number | undefined;
        row?: number | undefined;
        sheet?: string | undefined;
        element?: string | undefined;
        says: string;
    } | null;
    source: {
        id: string;
        name: string;
    } | null;
    path: {
        id: string;
        node: number;
        reference: string;
        title: string;
        kind: string;
        collection: string;
        heading: boolean;
        withdrawn: boolean;
        state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
    }[];
    upstream: {
        id: string;
        linkKind: string;
        phrase: string;
        end: "from" | "to";
        suspect: boolean;
        origin: string;
        other: {
            id: string;
            node: number;
            reference: string;
            title: string;
            kind: string;
            collection: string;
            heading: boolean;
            withdrawn: boolean;
            state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
        };
    }[];
    downstream: {
        id: string;
        linkKind: string;
        phrase: string;
        end: "from" | "to";
        suspect: boolean;
        origin: string;
        other: {
            id: string;
            node: number;
            reference: string;
            title: string;
            kind: string;
            collection: string;
            heading: boolean;
            withdrawn: boolean;
            state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
        };
    }[];
    coverage: {
        rule: string;
        label: string;
        state: "met" | "notApplicable" | "notMet" | "suspect" | "waived";
    }[];
    evidence: {
        test: {
            id: string;
            node: number;
            reference: string;
            title: string;
            kind: string;
            collection: string;
            heading: boolean;
            withdrawn: boolean;
            state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
        };
        outcome: "broken" | "failed" | "passed" | "skipped" | null;
        at: string | null;
        run: string | null;
        message: string;
        stale: boolean;
    }[];
    results: {
        outcome: "broken" | "failed" | "passed" | "skipped";
        at: string;
        run: string;
        message: string;
        duration: number | null;
    }[];
    waivers: {
        id: string;
        item: string;
        rule: string;
        person: string;
        reason: string;
        until: string | null;
        active: boolean;
    }[];
}, Error>;
export declare function useHistory(project: string, item: string): import("@tanstack/react-query").UseQueryResult<{
    seq: number;
    at: string;
    person: string;
    action: string;
    revision: number;
    changes: {
        field: string;
        words: {
            type: "added" | "removed" | "same";
            text: string;
        }[];
    }[];
}[], Error>;
export declare function useExplanation(project: string, rule: string, item: string, enabled: boolean): import("@tanstack/react-query").UseQueryResult<{
    state: "met" | "notApplicable" | "notMet" | "suspect" | "waived";
    sentence: string;
    paths: {
        suspect: boolean;
        steps: {
            phrase: string;
            item: {
                id: string;
                node: number;
                reference: string;
                title: string;
                kind: string;
                collection: string;
                heading: boolean;
                withdrawn: boolean;
                state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
            };
        }[];
    }[];
    ends: {
        id: string;
        node: number;
        reference: string;
        title: string;
        kind: string;
        collection: string;
        heading: boolean;
        withdrawn: boolean;
        state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
    }[];
    looksFor: string;
}, Error>;
export declare function useLinkDifference(project: string, link: string): import("@tanstack/react-query").UseQueryResult<{
    linkKind: string;
    confirmedBy: string;
    ends: {
        item: {
            id: string;
            node: number;
            reference: string;
            title: string;
            kind: string;
            collection: string;
            heading: boolean;
            withdrawn: boolean;
            state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
        };
        words: {
            type: "added" | "removed" | "same";
            text: string;
        }[];
        changedBy: string | null;
    }[];
}, Error>;
/** A changing call that refreshes everything of the project when done. */
export declare function useChange<Input, Result>(project: string, change: (input: Input) => Promise<Result>, done?: string): import("@tanstack/react-query").UseMutationResult<Result, unknown, Input, unknown>;
export declare const useEditItem: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    id: string;
    node: number;
    collection: string;
    kind: string;
    reference: string;
    title: string;
    html: string;
    fields: Record<string, string | number | boolean | string[] | null>;
    heading: boolean;
    parent: string | null;
    revision: number;
    withdrawn: boolean;
    state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
}, unknown, {
    revision: number;
    title?: string | undefined;
    html?: string | undefined;
    fields?: Record<string, string | number | boolean | string[] | null> | undefined;
    kind?: string | undefined;
} & {
    id: string;
}, unknown>;
export declare const useAddItem: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    id: string;
    node: number;
    collection: string;
    kind: string;
    reference: string;
    title: string;
    html: string;
    fields: Record<string, string | number | boolean | string[] | null>;
    heading: boolean;
    parent: string | null;
    revision: number;
    withdrawn: boolean;
    state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
}, unknown, {
    collection: string;
    kind?: string | undefined;
    title: string;
    html?: string | undefined;
    fields?: Record<string, string | number | boolean | string[] | null> | undefined;
    heading?: boolean | undefined;
    parent?: string | null | undefined;
    after?: string | null | undefined;
}, unknown>;
export declare const useMoveItem: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    ids: string[];
}, unknown, {
    parent: string | null;
    after: string | null;
} & {
    id: string;
}, unknown>;
export declare const useWithdraw: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    ids: string[];
}, unknown, string[], unknown>;
export declare const useRestore: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    ids: string[];
}, unknown, string[], unknown>;
export declare const useRemoveLinks: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    ids: string[];
}, unknown, string[], unknown>;
export declare const useConfirmLinks: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    ids: string[];
}, unknown, string[], unknown>;
export declare const useWaive: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    id: string;
    item: string;
    rule: string;
    person: string;
    reason: string;
    until: string | null;
    active: boolean;
}, unknown, {
    item: string;
    rule: string;
    reason: string;
    until?: string | null | undefined;
}, unknown>;
export declare const useWithdrawWaiver: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    id: string;
    item: string;
    rule: string;
    person: string;
    reason: string;
    until: string | null;
    active: boolean;
}, unknown, string, unknown>;
