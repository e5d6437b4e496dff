import { useCallback, useState } from 'react';

/** Words of a form that has no item of its own: they stay in the browser over Back, another view and a reload, until they are sent. */
export function useKept(project: string, name: string, initial = ''): [words: string, setWords: (words: string) => void, drop: () => void] {
  const key = `coomb.words.${project}.${name}`;
  const [words, setWords] = useState(() => localStorage.getItem(key) ?? initial);
  const keep = useCallback(
    (next: string) => {
      setWords(next);
      try {
        if (next === initial) localStorage.removeItem(key);
        else localStorage.setItem(key, next);
      } catch {
        // A full or forbidden store keeps nothing; the words still stand in the form.
      }
    },
    [key, initial],
  );
  const drop = useCallback(() => keep(initial), [keep, initial]);
  return [words, keep, drop];
}
