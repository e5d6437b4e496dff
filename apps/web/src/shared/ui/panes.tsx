import { Box } from '@chakra-ui/react';
import { Fragment, type ReactNode } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';

interface Pane {
  id: string;
  /** Share of the whole at first, in percent. */
  size: number;
  /** Fewest pixels. */
  least: number;
  content: ReactNode;
}

/** Panes side by side, or one above the other, whose borders are moved by mouse or arrow keys; each person's sizes are kept in the browser. */
export function Panes({ id, above = false, panes }: { id: string; above?: boolean; panes: readonly Pane[] }) {
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({ id: `coomb.panes.${id}`, storage: localStorage });
  return (
    <Group orientation={above ? 'vertical' : 'horizontal'} defaultLayout={defaultLayout} onLayoutChanged={onLayoutChanged} style={{ height: '100%' }}>
      {panes.map((pane, at) => (
        <Fragment key={pane.id}>
          {at > 0 && <Border above={above} />}
          <Panel id={pane.id} defaultSize={`${pane.size}%`} minSize={pane.least}>
            {pane.content}
          </Panel>
        </Fragment>
      ))}
    </Group>
  );
}

function Border({ above }: { above: boolean }) {
  const long = above ? { h: '1px', w: '100%' } : { w: '1px', h: '100%' };
  return (
    <Box asChild {...long} bg="border" position="relative" _hover={{ bg: 'moss.solid' }} _focusVisible={{ bg: 'moss.solid' }}>
      <Separator aria-label="Border between the panes" title="Drag to give one pane more room" />
    </Box>
  );
}
