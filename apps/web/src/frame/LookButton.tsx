import { Box, Button, Popover, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  /** What is on, in words; or what holds while nothing is. */
  says: string;
  isOn: boolean;
  /** Whether it must be plain to see. */
  loud?: boolean;
  icon: ReactNode;
  title: string;
  label: string;
  children: ReactNode;
}

/** One way of looking, beside the project's name: what is on, and behind it what else there is. */
export function LookButton({ says, isOn, loud = false, icon, title, label, children }: Props) {
  return (
    <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
      <Popover.Trigger asChild>
        <Button
          size="2xs"
          variant={loud ? 'solid' : 'ghost'}
          minW="0"
          px="1.5"
          fontWeight={isOn ? '600' : '400'}
          {...(!loud && { color: isOn ? 'fg' : 'fg.muted' })}
          aria-label={says}
          title={title}
        >
          {icon}
          <Box truncate title={says} display={{ base: isOn ? 'block' : 'none', lg: 'block' }} maxW="220px">
            {says}
          </Box>
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="350px" borderWidth="1px" aria-label={label}>
            <Popover.Body p="2" fontSize="13.5px">
              {children}
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
