export declare function useProjects(): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    name: string;
    createdAt: string;
    items: number;
    links: number;
}[], Error>;
export declare function useCreateProject(onMade: (id: string) => void): import("@tanstack/react-query").UseMutationResult<{
    id: string;
    name: string;
    createdAt: string;
    items: number;
    links: number;
}, unknown, string, unknown>;
