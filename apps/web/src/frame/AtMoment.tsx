import { useEffect } from 'react';
import { useSearchParams } from 'react-router';
import { useProjectId } from '../shared/live/project-queries';
import { lookAsOf, useMoment } from '../shared/moment/moment';
import type { View } from '../shared/view';
import { ProjectFrame } from './ProjectFrame';

/** The project as of the moment that is looked at: each moment is a page of its own. An address may name one: `?asOf=12`. */
export function AtMoment({ views }: { views: readonly View[] }) {
  const project = useProjectId();
  const moment = useMoment(project);
  const [params, setParams] = useSearchParams();
  const asked = params.get('asOf');
  useEffect(() => {
    if (asked === null) return;
    const seq = Number(asked);
    if (Number.isInteger(seq) && seq > 0) lookAsOf(project, { seq, says: `change ${seq}` });
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        next.delete('asOf');
        return next;
      },
      { replace: true },
    );
  }, [asked, project, setParams]);
  return asked === null ? <ProjectFrame key={`${project} ${moment?.seq ?? 'now'}`} views={views} /> : null;
}
