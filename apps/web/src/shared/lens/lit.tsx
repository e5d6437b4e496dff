import type { OutlineReply } from '@coomb/contract';
import { createContext, type ReactNode, useContext, useMemo } from 'react';
import { FAINT } from '../ui/faint';

const Lit = createContext<ReadonlySet<string> | undefined>(undefined);

/** Tells what lies within it which items a lens lights: the others are faint. */
export function LitItems({ outline, rows, children }: { outline: OutlineReply; rows: ReadonlySet<number> | undefined; children: ReactNode }) {
  const ids = useMemo(() => rows && new Set([...rows].map((row) => outline.id[row]!)), [outline, rows]);
  return <Lit value={ids}>{children}</Lit>;
}

/** How strongly items are shown: in full, or faint where a lens lights others. */
export function useStrength(): (id: string) => number | undefined {
  const lit = useContext(Lit);
  return (id) => (lit && !lit.has(id) ? FAINT : undefined);
}
