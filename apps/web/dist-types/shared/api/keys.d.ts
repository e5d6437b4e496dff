/** All keys of a project start with its id, so that one change can refresh everything that rests on it. */
export declare const projectKey: (project: string) => readonly ['project', string];
