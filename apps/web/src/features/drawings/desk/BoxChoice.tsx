import { Box, Button, Checkbox, Popover, Portal } from '@chakra-ui/react';
import type { LinkBoxes } from '@coomb/core';
import { useProject } from '../../../shared/live/project-queries';

interface Props {
  wish: LinkBoxes;
  onChange: (wish: LinkBoxes) => void;
  /** Keeps boxes with the drawing, where they differ from what is kept. */
  onKeep: (() => void) | undefined;
}

/** Boxes beside shapes with what they are linked with: all at once or none, and of which layers. */
export function BoxChoice({ wish, onChange, onKeep }: Props) {
  const { scheme } = useProject();
  const isOn = wish.shown === 'all' || wish.shown.length > 0;
  return (
    <>
      {onKeep && (
        <Button size="2xs" onClick={onKeep} title="Keep these boxes with the drawing, for everybody">
          Keep boxes
        </Button>
      )}
      <Popover.Root positioning={{ placement: 'bottom-end' }} lazyMount unmountOnExit>
        <Popover.Trigger asChild>
          <Button size="2xs" variant={isOn ? 'subtle' : 'ghost'} title="Boxes with links beside the shapes  B">
            Boxes
          </Button>
        </Popover.Trigger>
        <Portal>
          <Popover.Positioner>
            <Popover.Content width="230px" fontSize="13px" aria-label="Boxes with links">
              <Popover.Body p="3">
                <Tick
                  label="beside every shape with links"
                  checked={wish.shown === 'all'}
                  onChange={(checked) => onChange({ ...wish, shown: checked ? 'all' : [] })}
                />
                <Box color="fg.muted" mt="2" mb="1">
                  with links to
                </Box>
                {scheme.layers.map((layer) => (
                  <Tick
                    key={layer.id}
                    label={layer.label}
                    checked={wish.layers.length === 0 || wish.layers.includes(layer.id)}
                    onChange={(checked) => {
                      const all = scheme.layers.map(({ id }) => id);
                      const known = wish.layers.length === 0 ? all : wish.layers;
                      const layers = all.filter((id) => (id === layer.id ? checked : known.includes(id)));
                      onChange({ ...wish, layers: layers.length === all.length ? [] : layers });
                    }}
                  />
                ))}
                {Object.keys(wish.places).length > 0 && (
                  <Button mt="2" size="2xs" variant="ghost" px="0" onClick={() => onChange({ ...wish, places: {} })}>
                    Place them by themselves again
                  </Button>
                )}
              </Popover.Body>
            </Popover.Content>
          </Popover.Positioner>
        </Portal>
      </Popover.Root>
    </>
  );
}

function Tick({ label, checked, onChange }: { label: string; checked: boolean; onChange: (checked: boolean) => void }) {
  return (
    <Checkbox.Root size="sm" display="flex" py="0.5" checked={checked} onCheckedChange={(change) => onChange(change.checked === true)}>
      <Checkbox.HiddenInput />
      <Checkbox.Control />
      <Checkbox.Label fontWeight="400">{label}</Checkbox.Label>
    </Checkbox.Root>
  );
}
