import { useState } from 'react';

/** A state that holds while something is as it was when it was set, and is the first one else. */
export function useWhile<Value>(first: Value, as: string): [Value, (value: Value) => void] {
  const [{ value, of }, set] = useState({ value: first, of: as });
  return [of === as ? value : first, (next) => set({ value: next, of: as })];
}
