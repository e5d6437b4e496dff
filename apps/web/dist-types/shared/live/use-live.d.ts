/** Follows a project live: whatever others change is fetched again at once. Tells who is here and whether the line holds. */
export declare function useLive(project: string): {
    people: string[];
    connected: boolean;
};
