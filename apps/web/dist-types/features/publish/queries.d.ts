export declare function useReports(project: string): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    number: number;
    title: string;
    at: string;
    person: string;
    seq: number;
    stale: boolean;
}[], Error>;
export declare function useReport(project: string, report: string): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    number: number;
    title: string;
    at: string;
    person: string;
    seq: number;
    stale: boolean;
    body: {
        project: string;
        title: string;
        note: string;
        at: string;
        person: string;
        seq: number;
        readiness: {
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
        };
        gaps: {
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
            why: string[];
        }[];
        matrix: {
            title: string;
            rows: {
                reference: string;
                title: string;
                heading: boolean;
                state: "failing" | "notApplicable" | "partly" | "planned" | "stale" | "unplanned" | "verified" | "waived";
                design: string[];
                tests: string[];
            }[];
        };
        since: {
            number: number;
            at: string;
        } | null;
        moved: {
            label: string;
            before: number;
            now: number;
        }[];
        changed: {
            reference: string;
            title: string;
            what: string;
        }[];
    };
}, Error>;
export declare const usePublish: (project: string) => import("@tanstack/react-query").UseMutationResult<{
    id: string;
    number: number;
    title: string;
    at: string;
    person: string;
    seq: number;
    stale: boolean;
}, unknown, {
    title: string;
    note: string;
}, unknown>;
