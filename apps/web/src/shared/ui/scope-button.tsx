import { Box, Button, Popover } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';

/** Opens what something is about, and says it: "Rows System requirements". Its name is what it shows. */
export function ScopeButton({ name, says }: { name: string; says: string }) {
  const shown = `${name} ${says}`;
  return (
    <Popover.Trigger asChild>
      <Button size="xs" variant="outline" maxW="16rem" title={shown} aria-label={shown}>
        <Box as="span" color="fg.muted">
          {`${name} `}
        </Box>
        <Box as="span" truncate title={says}>
          {says}
        </Box>
        <ChevronDown size={12} />
      </Button>
    </Popover.Trigger>
  );
}
