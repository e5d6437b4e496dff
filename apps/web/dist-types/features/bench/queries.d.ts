export declare function useLinksBetween(project: string, left: string, right: string): import("@tanstack/react-query").UseQueryResult<{
    seq: number;
    id: string[];
    from: number[];
    to: number[];
    kind: number[];
    suspect: number[];
}, Error>;
export declare function useSuggestions(project: string, item: string | undefined, collection: string): import("@tanstack/react-query").UseQueryResult<{
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
    score: number;
    shared: string[];
}[], Error>;
export declare const useMakeLink: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    ids: string[];
}, unknown, {
    linkKind: string;
    from: string;
    to: string;
}[], unknown>;
export declare const useUnlink: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    ids: string[];
}, unknown, string[], unknown>;
