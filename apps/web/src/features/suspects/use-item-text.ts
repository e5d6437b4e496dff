import { getItem } from '@coomb/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../../shared/api/client';
import { projectKey } from '../../shared/api/keys';

/** The text of an item without its marks, to be read beside another. */
export function useItemText(project: string, item: string | undefined): string {
  const sheet = useQuery({
    queryKey: [...projectKey(project), 'item', item],
    queryFn: ({ signal }) => call(getItem, { params: { project, item: item! }, query: {}, signal }),
    enabled: item !== undefined,
  });
  if (!sheet.data) return '';
  const parsed = new DOMParser().parseFromString(sheet.data.html, 'text/html');
  return [...parsed.body.children].map((block) => block.textContent?.trim() ?? '').join('\n') || (parsed.body.textContent ?? '');
}
