/** All keys of a project start with its id, so that one change can refresh everything that rests on it. */
export const projectKey = (project: string) => ['project', project] as const;
