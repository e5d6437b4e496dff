export declare function useUndoState(project: string): import("@tanstack/react-query").UseQueryResult<{
    undo: string | null;
    redo: string | null;
}, Error>;
export declare function useJobs(project: string): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    label: string;
    state: "cancelled" | "done" | "failed" | "running";
    progress: number;
    step: string;
    message: string;
    outcome: {
        collection: string | null;
        items: number;
        links: number;
        results: number;
        issues: {
            severity: "error" | "note" | "warning";
            code: string;
            at: string;
            message: string;
        }[];
    } | null;
}[], Error>;
export declare function useTakeBack(project: string): import("@tanstack/react-query").UseMutationResult<{
    seq: number;
    action: string;
}, unknown, "redo" | "undo", unknown>;
export declare function useCancelJob(project: string): import("@tanstack/react-query").UseMutationResult<{
    id: string;
    label: string;
    state: "cancelled" | "done" | "failed" | "running";
    progress: number;
    step: string;
    message: string;
    outcome: {
        collection: string | null;
        items: number;
        links: number;
        results: number;
        issues: {
            severity: "error" | "note" | "warning";
            code: string;
            at: string;
            message: string;
        }[];
    } | null;
}, unknown, string, unknown>;
