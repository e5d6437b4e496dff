import type { Usage } from '@coomb/contract';
import { useSearchParams } from 'react-router';

const EVERYWHERE = 'everywhere';

/** Ids of the items on the path of a use. */
export const idsOf = ({ path }: Pick<Usage, 'path'>): string[] => path.map(({ id }) => id);

/** The path down to an item that a path of the address leads through, if it does. */
export function pathThrough(item: string, path: string | null): string[] | undefined {
  const ids = path?.split(',') ?? [];
  const at = ids.lastIndexOf(item);
  return at > 0 ? ids.slice(0, at + 1) : undefined;
}

/** The use that an item is shown in: the one that the address names, or that is chosen in the view beside it; nothing for everywhere. */
export function useInUse(item: string | undefined): [string[] | undefined, (use: readonly string[] | undefined) => void] {
  const [params, setParams] = useSearchParams();
  const said = params.get('in');
  const use = item === undefined || said === EVERYWHERE ? undefined : pathThrough(item, said ?? params.get('use'));
  const set = (next: readonly string[] | undefined) =>
    setParams(
      (before) => {
        const after = new URLSearchParams(before);
        after.set('in', next ? next.join(',') : EVERYWHERE);
        return after;
      },
      { replace: true },
    );
  return [use, set];
}
