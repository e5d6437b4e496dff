import { Button, Menu, Portal } from '@chakra-ui/react';
import { Download } from 'lucide-react';
import { useRef } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { saveFile } from '../../shared/save-file';
import { readColours } from '../../shared/ui/canvas';
import { notify, notifyError } from '../../shared/ui/notices';
import type { Glyph } from './glyphs';
import { saveTable } from './queries';
import { matrixDrawing, matrixTable, MOST_DRAWN, type ShownMatrix } from './save-matrix';

/** Pictures larger than this, in pixels along a side, no browser paints. */
const MOST_PIXELS = 16_000;

/** The matrix as it is shown, as a table or as a picture. */
export function SaveMatrix({ matrix, name, glyphs }: { matrix: () => ShownMatrix; name: string; glyphs: readonly Glyph[] }) {
  const project = useProject();
  const button = useRef<HTMLButtonElement>(null);
  const table = (format: 'xlsx' | 'csv') =>
    saveTable(project.id, format, matrixTable(matrix(), name)).then((file) => saveFile(file.name, file.blob), notifyError);
  const draw = () => {
    const shown = matrix();
    if (Math.max(shown.rows.lines.length, shown.columns.lines.length) > MOST_DRAWN)
      return notify(
        `${shown.rows.lines.length} × ${shown.columns.lines.length} lines are too many for a picture; at most ${MOST_DRAWN} are. Fold it first.`,
        'info',
      );
    return matrixDrawing(shown, name, glyphs, readColours(button.current!));
  };
  const svg = () => {
    const drawing = draw();
    if (drawing) saveFile(`${name}.svg`, new Blob([drawing.svg], { type: 'image/svg+xml' }));
  };
  const png = () => {
    const drawing = draw();
    if (!drawing) return;
    const scale = Math.min(2, MOST_PIXELS / Math.max(drawing.width, drawing.height));
    const picture = new Image();
    picture.onload = () => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [Math.round(drawing.width * scale), Math.round(drawing.height * scale)];
      canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
      canvas.toBlob((blob) => (blob ? saveFile(`${name}.png`, blob) : notify('The browser could not paint it: it is too large. Save it as SVG.', 'error')));
    };
    picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawing.svg)}`;
  };
  const ways = [
    ['xlsx', 'Workbook (.xlsx)', () => void table('xlsx')],
    ['csv', 'Separated values (.csv)', () => void table('csv')],
    ['svg', 'Drawing (.svg)', svg],
    ['png', 'Picture (.png)', png],
  ] as const;
  return (
    <Menu.Root positioning={{ placement: 'bottom-end' }}>
      <Menu.Trigger asChild>
        <Button ref={button} size="xs" variant="outline">
          <Download size={13} /> Save
        </Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content>
            {ways.map(([value, label, run]) => (
              <Menu.Item key={value} value={value} onClick={run}>
                {label}
              </Menu.Item>
            ))}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
