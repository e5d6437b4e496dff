import { Button } from '@chakra-ui/react';
import { counted, figure } from '@coomb/core';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { saveFile } from '../../shared/save-file';
import { toCsv } from '../../shared/to-csv';
import { notify, notifyError } from '../../shared/ui/notices';
import { fetchLinks, type ListWish } from './queries';
import { useNames } from './use-names';

const WINDOW = 500;
const heads = [
  'From',
  'Title',
  'Kind',
  'reads',
  'To',
  'Title',
  'Kind',
  'From in use',
  'To in use',
  'Suspect',
  'Origin',
  'Confirmed by',
  'On',
  'Link',
  'Fields',
];

/** Saves the rows that the filter leaves, in their order, to be read elsewhere. */
export function SaveLinks({ wish, total }: { wish: ListWish; total: number }) {
  const project = useProject();
  const names = useNames();
  const [read, setRead] = useState<number>();
  const save = async () => {
    const rows: string[][] = [];
    for (let offset = 0; offset < total; offset += WINDOW) {
      setRead(offset);
      for (const { id, from, to, kind, fromUse, toUse, suspect, origin, person, at, fields } of (await fetchLinks(project.id, wish, offset, WINDOW)).rows)
        rows.push([
          ...[from.reference, from.title, from.kind, names.phrase(kind), to.reference, to.title, to.kind, fromUse ?? '', toUse ?? ''],
          ...[suspect ? 'yes' : 'no', names.origin(origin), person, at, id],
          Object.entries(fields)
            .map(([field, value]) => `${field}: ${String(value)}`)
            .join('; '),
        ]);
    }
    saveFile('Links.csv', new Blob([toCsv([heads, ...rows])], { type: 'text/csv' }));
    notify(`Saved ${counted(rows.length, 'link')}.`);
  };
  return (
    <Button
      size="xs"
      variant="outline"
      disabled={total === 0}
      loading={read !== undefined}
      loadingText={read === undefined ? undefined : `${figure(read)} of ${figure(total)}`}
      onClick={() =>
        void save()
          .catch(notifyError)
          .finally(() => setRead(undefined))
      }
    >
      <Download size={13} /> Save
    </Button>
  );
}
