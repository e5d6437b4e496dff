import { Box } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { counted, phraseAt, type WayStep } from '@coomb/core';
import { useProject } from '../../shared/live/project-queries';
import { useCell } from './queries';

const WIDTH = 380;

interface Props {
  outline: OutlineReply;
  /** Outline rows of the two items. */
  row: number;
  column: number;
  marks: readonly WayStep[][];
  /** Where it stands in the frame, and how wide that is. */
  left: number;
  top: number;
  within: number;
}

/** What stands in a cell: its links, and the paths through items between. */
export function CellCard({ outline, row, column, marks, left, top, within }: Props) {
  const { scheme, id: project } = useProject();
  const cell = useCell(project, { row: outline.id[row]!, column: outline.id[column]! }, [...marks]);
  if (!cell || cell.links.length + cell.paths.length === 0) return null;
  return (
    <Box
      role="tooltip"
      position="absolute"
      pointerEvents="none"
      zIndex="1"
      style={{ left: Math.max(4, Math.min(left, within - WIDTH - 8)), top, width: WIDTH }}
      bg="bg.panel"
      borderWidth="1px"
      borderRadius="l2"
      boxShadow="md"
      px="3"
      py="2"
      fontSize="12.5px"
    >
      <Box fontWeight="600" mb="1">
        {outline.reference[row]} {outline.title[row]}
        <Box as="span" color="fg.muted" fontWeight="400">
          {' × '}
        </Box>
        {outline.reference[column]} {outline.title[column]}
      </Box>
      {cell.links.map(({ id, linkKind, reversed, suspect }) => {
        const kind = scheme.linkKinds.find((one) => one.id === linkKind);
        return (
          <Box key={id}>
            {kind ? phraseAt(kind, reversed ? 'to' : 'from') : linkKind}
            {suspect && ', suspect'}
          </Box>
        );
      })}
      {cell.paths.length > 0 && (
        <Box color="fg.muted" mt="1">
          {counted(cell.paths.length, 'path')} through items between:
        </Box>
      )}
      {cell.paths.map(({ says, suspect }) => (
        <Box key={says}>
          {says}
          {suspect && ' (suspect)'}
        </Box>
      ))}
    </Box>
  );
}
