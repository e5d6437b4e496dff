import { listBaselines, listChanges } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/client';
import { projectKey } from '../api/keys';
import { useMoment } from '../moment/moment';

/** Moments that what is looked at can be compared with, newest first: those that have a name, then the last changes; with the number of the one that is looked at. */
export function useMoments(project: string) {
  const baselines = useQuery({ queryKey: [...projectKey(project), 'baselines'], queryFn: () => call(listBaselines, { params: { project } }) });
  const changes = useQuery({ queryKey: [...projectKey(project), 'moments'], queryFn: () => call(listChanges, { params: { project }, query: { most: 200 } }) });
  const moment = useMoment(project);
  const now = moment?.seq ?? changes.data?.[0]?.seq ?? 0;
  const earlier = (baselines.data ?? []).filter(({ seq }) => seq < now);
  const options = [
    ...earlier.map(({ seq, name }) => ({ value: String(seq), label: `${name} (change ${seq})` })),
    ...(changes.data ?? [])
      .filter(({ seq }) => seq < now && !earlier.some((one) => one.seq === seq))
      .map(({ seq, action }) => ({ value: String(seq), label: `change ${seq}: ${action}` })),
  ];
  return { earlier, changes: changes.data, now, options };
}
