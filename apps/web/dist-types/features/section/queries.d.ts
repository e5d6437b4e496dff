/** Above this many links the seams are left out until something is traced. */
export declare const mostSeams = 20000;
export declare function useSeams(project: string, links: number): import("@tanstack/react-query").UseQueryResult<{
    seq: number;
    id: string[];
    from: number[];
    to: number[];
    kind: number[];
    suspect: number[];
}, Error>;
export declare function useTrace(project: string, item: string | undefined): import("@tanstack/react-query").UseQueryResult<{
    up: [number, number][];
    down: [number, number][];
}, Error>;
export declare function useReadiness(project: string): import("@tanstack/react-query").UseQueryResult<{
    seq: number;
    rules: {
        rule: string;
        label: string;
        sentence: string;
        counts: Record<"met" | "notApplicable" | "notMet" | "suspect" | "waived", number>;
        applicable: number;
    }[];
    states: {
        id: string;
        label: string;
        count: number;
        state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
    }[];
    results: {
        id: string;
        label: string;
        count: number;
    }[];
    links: {
        id: string;
        label: string;
        count: number;
    }[];
    testsPerRequirement: {
        id: string;
        label: string;
        count: number;
    }[];
    requirementsPerTest: {
        id: string;
        label: string;
        count: number;
    }[];
    collections: {
        id: string;
        name: string;
        states: Record<"failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived", number>;
        rules: {
            rule: string;
            met: number;
            applicable: number;
        }[];
    }[];
}, Error>;
