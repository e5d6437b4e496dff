import { carries } from '../../shared/marks/drag-items';
import { Box, Flex, IconButton } from '@chakra-ui/react';
import { Maximize2, X } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useProjectId } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { useKeys } from '../../shared/ui/use-keys';
import { useSheet } from './queries';
import { useInUse } from './use-in-use';
import { SheetBody } from './SheetBody';
import { useWindowTitle } from '../../shared/ui/window-title';

/** The sheet at the side of a view; its address is the view's with `?item=`. */
export function ItemSheet({ item, onClose }: { item: string; onClose: () => void }) {
  const project = useProjectId();
  const known = useSheet(project, item).data;
  const [use] = useInUse(known?.id);
  const sheet = useSheet(project, item, use);
  useWindowTitle(sheet.data ? `${sheet.data.reference} ${sheet.data.title}` : item);
  const keys = useMemo(() => ({ Escape: onClose }), [onClose]);
  useKeys(keys);
  return (
    <Flex
      as="aside"
      aria-label={`Item ${item}`}
      direction="column"
      w={{ base: '100%', md: '420px' }}
      position={{ base: 'absolute', md: 'static' }}
      inset="0"
      zIndex={{ base: 'docked', md: 'auto' }}
      flexShrink={0}
      h="100%"
      borderLeftWidth={{ base: '0', md: '1px' }}
      bg="bg.panel"
    >
      <Flex align="center" gap="1" pl="5" pr="2" h="36px" borderBottomWidth="1px" flexShrink={0}>
        <Box flex="1">
          <Box
            as="span"
            fontFamily="mono"
            fontSize="13px"
            color="moss.fg"
            cursor="grab"
            title="Drag it onto an item to link the two"
            {...(sheet.data && carries(sheet.data.reference))}
          >
            {sheet.data?.reference ?? item}
          </Box>
        </Box>
        <IconButton asChild aria-label="Open full" title="Open full" size="2xs" variant="ghost">
          <Link to={`/p/${project}/items/${item}`}>
            <Maximize2 size={13} />
          </Link>
        </IconButton>
        <IconButton aria-label="Close the sheet" title="Close (Esc)" size="2xs" variant="ghost" onClick={onClose}>
          <X size={14} />
        </IconButton>
      </Flex>
      <Box flex="1" overflow="auto" {...(sheet.data && { 'data-reference': sheet.data.reference })}>
        {sheet.error ? (
          <Box px="4">
            <ErrorNote error={sheet.error} />
          </Box>
        ) : sheet.data ? (
          <SheetBody sheet={sheet.data} />
        ) : (
          <Loading what="the item" />
        )}
      </Box>
    </Flex>
  );
}
