import { Box, Menu, Portal } from '@chakra-ui/react';
import { type Column, findOffer, type RegisterWhat, sayTally, talliesOf, type Tally } from '@coomb/core';
import { ChevronDown } from 'lucide-react';
import { memo, useRef, useState } from 'react';
import { useProject } from '../../shared/live/project-queries';

interface Props {
  what: RegisterWhat;
  column: Column;
  name: string;
  /** Its place among those that are drawn. */
  place: number;
  /** How many are held in sight now. */
  frozen: number;
  onChange: (change: Partial<RegisterWhat>) => void;
}

/** Values that shares are offered of. */
const MOST_SHARES = 12;

/**
 * What can be done with a column: sorting, grouping, holding it in sight, hiding it, and what it says of many rows. A plain button until it is
 * opened: heads are drawn anew while one scrolls, and menus would cost frames.
 */
export const HeadMenu = memo(function HeadMenu(props: Props) {
  const [isOpen, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const close = () => {
    // Whoever opened it by a key goes on in the cells.
    button.current?.closest<HTMLElement>('[role="grid"]')?.focus({ preventScroll: true });
    setOpen(false);
  };
  return (
    <>
      <button
        ref={button}
        type="button"
        className="menu"
        data-menu={props.column.id}
        aria-label={`Do with ${props.name}`}
        aria-haspopup="menu"
        aria-expanded={isOpen}
        title="Sort, group, hold, hide, sum up"
        tabIndex={-1}
        onClick={() => setOpen(true)}
      >
        <ChevronDown size={12} />
      </button>
      {isOpen && <OpenMenu {...props} at={() => button.current} onClose={close} />}
    </>
  );
});

function OpenMenu({ what, column, name, place, frozen, onChange, at, onClose }: Props & { at: () => HTMLElement | null; onClose: () => void }) {
  const { scheme } = useProject();
  const { id } = column;
  const offer = findOffer(scheme, column.shown);
  const type = column.as === 'count' ? 'number' : column.way.length > 0 && column.as === 'list' ? 'several' : (offer?.type ?? null);
  const values = type === 'yesNo' ? ['yes', 'no'] : (offer?.values ?? []);
  const tallies = talliesOf(type).flatMap((as): Tally[] => (as === 'share' ? values.slice(0, MOST_SHARES).map((of) => ({ as, of })) : [{ as }]));
  const setTally = (tally: Tally | undefined) =>
    onChange({
      columns: what.columns.map((one) => (one.id === id ? { ...one, tally } : one)),
    });
  const isGrouped = what.group.includes(id);
  const run = {
    up: () => onChange({ sort: [{ column: id, descending: false }] }),
    down: () => onChange({ sort: [{ column: id, descending: true }] }),
    unsorted: () => onChange({ sort: what.sort.filter((one) => one.column !== id) }),
    group: () => onChange({ group: isGrouped ? what.group.filter((one) => one !== id) : [...what.group, id] }),
    hold: () => onChange({ frozen: place + 1 === frozen ? 0 : place + 1 }),
    hide: () => onChange({ columns: what.columns.map((one) => (one.id === id ? { ...one, hidden: true } : one)) }),
    leave: () =>
      onChange({
        columns: what.columns.filter((one) => one.id !== id),
        sort: what.sort.filter((one) => one.column !== id),
        group: what.group.filter((one) => one !== id),
      }),
  };
  return (
    <Menu.Root
      open
      onOpenChange={(details) => !details.open && onClose()}
      positioning={{ placement: 'bottom-end', getAnchorRect: () => at()?.getBoundingClientRect() ?? null }}
      aria-label={`Do with ${name}`}
    >
      <Portal>
        <Menu.Positioner>
          <Menu.Content fontSize="13px" minW="15rem">
            {what.shape === 'list' && (
              <>
                <Menu.Item value="up" onClick={run.up}>
                  Least first
                </Menu.Item>
                <Menu.Item value="down" onClick={run.down}>
                  Most first
                </Menu.Item>
                {what.sort.some((one) => one.column === id) && (
                  <Menu.Item value="unsorted" onClick={run.unsorted}>
                    Do not sort by it
                  </Menu.Item>
                )}
                <Menu.Item value="group" onClick={run.group}>
                  {isGrouped ? 'Do not group by it' : what.group.length > 0 ? 'Group also by it' : 'Group by it'}
                </Menu.Item>
                <Menu.Separator />
              </>
            )}
            <Menu.Item value="hold" onClick={run.hold}>
              {place + 1 === frozen ? 'Hold no columns in sight' : 'Hold columns up to here in sight'}
            </Menu.Item>
            <Menu.Item value="hide" onClick={run.hide}>
              Hide it, and keep what it does
            </Menu.Item>
            <Menu.Item value="leave" onClick={run.leave}>
              Leave it out
            </Menu.Item>
            <Menu.Separator />
            <Menu.Root positioning={{ placement: 'right-start', gutter: 2 }} lazyMount unmountOnExit>
              <Menu.TriggerItem>
                Sum up: {column.tally ? sayTally(column.tally) : 'nothing'}
                <Box flex="1" />
                <span aria-hidden>›</span>
              </Menu.TriggerItem>
              <Portal>
                <Menu.Positioner>
                  <Menu.Content fontSize="13px" maxH="20rem" overflowY="auto">
                    <Menu.Item value="tally-nothing" onClick={() => setTally(undefined)}>
                      nothing
                    </Menu.Item>
                    {tallies.map((tally) => (
                      <Menu.Item key={sayTally(tally)} value={`tally-${sayTally(tally)}`} onClick={() => setTally(tally)}>
                        {sayTally(tally)}
                      </Menu.Item>
                    ))}
                  </Menu.Content>
                </Menu.Positioner>
              </Portal>
            </Menu.Root>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
