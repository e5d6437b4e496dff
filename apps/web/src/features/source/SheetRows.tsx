import { counted } from '@coomb/core';
import { Box, Button, Flex } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { Choice } from '../../shared/ui/choice';
import { useKeys } from '../../shared/ui/use-keys';
import type { SourceReading } from './queries';
import { RowsView } from './RowsView';
import { accountForRows } from './account-for-rows';

interface Props {
  sheets: Extract<SourceReading['content'], { type: 'sheets' }>['sheets'];
  items: SourceReading['items'];
  /** Reference of the item whose row is shown. */
  at: string | undefined;
}

/** The sheets of a workbook as they stand, with what each row became, and the rows that became nothing of their own. */
export function SheetRows({ sheets, items, at }: Props) {
  const asked = items.find(({ item }) => item.reference === at)?.place;
  const [name, setName] = useState(asked?.sheet ?? items[0]?.place.sheet ?? sheets[0]?.name ?? '');
  const [shown, setShown] = useState(asked?.row);
  const sheet = sheets.find((one) => one.name === name) ?? sheets[0];
  const marks = useMemo(
    () => new Map(items.flatMap(({ item, place }) => (place.sheet === sheet?.name && place.row !== undefined ? [[place.row, item.reference] as const] : []))),
    [items, sheet],
  );
  const { filled, open } = useMemo(() => accountForRows(sheet?.rows ?? [], marks), [sheet, marks]);
  const next = () => setShown(open.find((row) => row > (shown ?? -1)) ?? open[0]);
  useKeys({ n: next }, open.length > 0);
  return (
    <Flex direction="column" h="100%">
      <Flex px="6" py="1.5" gap="4" align="center" fontSize="13.5px" borderBottomWidth="1px" bg="bg.panel" wrap="wrap">
        {sheets.length > 1 && (
          <Choice
            label="Sheet"
            value={sheet?.name ?? ''}
            options={sheets.map((one) => ({ value: one.name, label: one.name }))}
            onChange={(chosen) => {
              setName(chosen);
              setShown(undefined);
            }}
          />
        )}
        <Box>
          {filled - open.length} of {counted(filled, 'row')} that hold something became an item or a section.
        </Box>
        {open.length > 0 && (
          <>
            <Box color="fg.muted">{open.length} did not: column names, rows that go on with the one above, what the recipe left out.</Box>
            <Button size="2xs" variant="outline" onClick={next} title="Go to the next (N)">
              Next one
            </Button>
          </>
        )}
      </Flex>
      <Box flex="1" minH="0">
        <RowsView rows={sheet?.rows ?? []} marks={marks} shown={shown} mono={false} />
      </Box>
    </Flex>
  );
}
