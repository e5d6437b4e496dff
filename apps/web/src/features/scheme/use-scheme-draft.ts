import { schemeWish } from '@coomb/contract';
import { useCallback, useMemo } from 'react';
import { useKept } from '../../shared/drafts/use-kept';
import { noDraft, type SchemeDraft } from './scheme-draft';

/** The change of a scheme that somebody is making: it stays in the browser over Back, another view and a reload, until it is kept or dropped. */
export function useSchemeDraft(project: string): [SchemeDraft, (change: (draft: SchemeDraft) => SchemeDraft) => void, () => void] {
  const [text, setText, drop] = useKept(project, 'scheme');
  const draft = useMemo(() => parse(text), [text]);
  const set = useCallback(
    (change: (draft: SchemeDraft) => SchemeDraft) => {
      const next = change(draft);
      setText(next.edits.length === 0 ? '' : JSON.stringify(next));
    },
    [draft, setText],
  );
  return [draft, set, drop];
}

function parse(text: string): SchemeDraft {
  if (!text) return noDraft;
  try {
    const parsed = schemeWish.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : noDraft;
  } catch {
    return noDraft;
  }
}
