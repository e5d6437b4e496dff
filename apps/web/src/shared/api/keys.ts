import { momentOf } from '../moment/moment';

/**
 * All keys of a project start with its id, so that one change can refresh everything that rests on it. What is read of an earlier moment is kept apart
 * from what holds now.
 */
export function projectKey(project: string): readonly string[] {
  const moment = momentOf(project);
  return moment ? ['project', project, `as of ${moment.seq}`] : ['project', project];
}
