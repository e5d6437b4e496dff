import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { Pencil } from 'lucide-react';
import { type ReactNode, useState } from 'react';

/** A name that is changed where it stands: Enter or leaving keeps it, Esc gives it up. */
export function NameLine({ name, what, onRename, children }: { name: string; what: string; onRename: (name: string) => void; children: ReactNode }) {
  const [editing, setEditing] = useState<string>();
  if (editing === undefined)
    return (
      <Flex align="center" gap="1" minW="0">
        {children}
        <Button size="2xs" variant="ghost" aria-label={`Rename ${what}`} title={`Rename ${what}`} onClick={() => setEditing(name)}>
          <Pencil size={13} />
        </Button>
      </Flex>
    );
  const keep = () => {
    const next = editing.trim();
    if (next && next !== name) onRename(next);
    setEditing(undefined);
  };
  return (
    <Box minW="16rem">
      <Input
        size="xs"
        autoFocus
        bg="bg.panel"
        fontSize="14px"
        maxLength={120}
        aria-label={`Name of ${what}`}
        value={editing}
        onChange={(event) => setEditing(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
          if (event.key === 'Escape') {
            event.stopPropagation();
            setEditing(undefined);
          }
        }}
      />
    </Box>
  );
}
