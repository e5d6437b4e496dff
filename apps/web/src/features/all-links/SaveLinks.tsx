import { Button } from '@chakra-ui/react';
import { saveLinkList } from '@coomb/contract';
import { Download } from 'lucide-react';
import { useProject } from '../../shared/live/project-queries';
import { asQuery, type ListWish } from './queries';
import { addressOf } from '../../shared/api/client';

/** Saves the rows that the filter leaves, in their order, to be read elsewhere. */
export function SaveLinks({ wish: { filter, ...wish }, total }: { wish: ListWish; total: number }) {
  const project = useProject();
  if (total === 0) return null;
  const query = { ...asQuery(filter), ...wish };
  return (['xlsx', 'csv'] as const).map((format) => (
    <Button key={format} asChild size="xs" variant="outline">
      <a href={addressOf(saveLinkList, { project: project.id, format }, query)} download aria-label={`Save these links as .${format}`}>
        <Download size={13} /> .{format}
      </a>
    </Button>
  ));
}
