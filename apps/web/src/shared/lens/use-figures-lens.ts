import { useLens } from './use-lens';

/** What figures are counted of, through the lens that is on: only what it shows, or everything where it only lights. */
export function useFiguresLens(): { part: { lens?: string }; says: string | undefined } {
  const lens = useLens();
  if (!lens || lens.error) return { part: {}, says: undefined };
  const name = lens.seen?.name ?? 'the lens';
  if (lens.mode === 'lit') return { part: {}, says: `Figures of everything: the lens “${name}” lights items, and leaves none out.` };
  return { part: { lens: lens.lens }, says: `Figures of what is seen through “${name}” only; what covers it may stand outside.` };
}
