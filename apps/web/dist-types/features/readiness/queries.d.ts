export { useReadiness } from '../section/queries';
export declare function useFigure(project: string, figure: string, collection: string | undefined): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    label: string;
    explains: string;
    items: {
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
}, Error>;
