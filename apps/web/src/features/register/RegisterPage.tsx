import { Box, Flex } from '@chakra-ui/react';
import type { Brief, RegisterRow, RegisterValue } from '@coomb/contract';
import { columnWidth, counted, figure, findOffer, type RegisterWhat, type RegisterWhere, sayColumn, sayCondition, sayTallied } from '@coomb/core';
import { useCallback, useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useFills } from '../../shared/colour-key/fills';
import { useLens } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { useAtHand } from '../../shared/marks/at-hand';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { buildGroupedRows } from '../../shared/ui/grouped-rows';
import { useMoment } from '../../shared/moment/moment';
import { notify, notifyError } from '../../shared/ui/notices';
import { Page } from '../../shared/ui/page';
import { useStable } from '../../shared/ui/use-stable';
import { useItemAddress } from '../../shared/ui/reference';
import { ChangeItemsDialog } from '../acting/ChangeItemsDialog';
import { AddRow } from './AddRow';
import { drawValue } from './Cell';
import { CellEditor } from './CellEditor';
import { frozenOf, kindName } from './column-looks';
import { readWhat, readWhere, sortBy, writeWhere } from './definition';
import { Grid } from './Grid';
import type { GridColumn, GroupRow } from './GridRow';
import { HeadMenu } from './HeadMenu';
import { printRegister } from './print-register';
import { fetchRegister, useRegister } from './queries';
import { RegisterActions } from './RegisterActions';
import { areaOf, type Spot } from './selection';
import { SortHead } from './SortHead';
import { keyOfCell, textOf, useCells } from './use-cells';
import { useRange } from './use-range';
import { WhatBar } from './WhatBar';

const address = z.object({
  /** What is shown, as it was composed; and the kind whose ready register is shown where nothing was. */
  what: z.string().max(20_000).default(''),
  kind: z.string().max(200).default(''),
  where: z.string().max(20_000).default(''),
});

const ROW = 27;
/** Rows that are printed at most. */
const MOST_PRINTED = 5_000;

/** Items as rows of chosen columns, apart from where they are looked for. */
export function RegisterPage() {
  const project = useProject();
  const { scheme } = project;
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [{ what: written, kind, where: place }, set] = useAddress(address);
  const what = useMemo(() => readWhat(scheme, written, kind), [scheme, written, kind]);
  const where = useMemo(() => readWhere(place), [place]);
  const moment = useMoment(project.id);
  const lens = useLens();
  const litNodes = lens?.mode === 'lit' ? lens.nodes : undefined;
  const fills = useFills();
  const { pathname, search } = useLocation();
  const addressOfItem = useMemo(() => {
    const params = new URLSearchParams(search);
    return (reference: string) => {
      params.set('item', reference);
      return `${pathname}?${params}`;
    };
  }, [pathname, search]);
  const through = lens?.mode === 'only' && !lens.error ? lens.lens : undefined;
  const [widths, setWidths] = useState<Record<string, number>>({});
  const asked = useMemo(() => ({ what, where: { ...where, ...(through && { lens: through }) } }), [what, where, through]);
  /** As it is kept, saved and printed: with the widths that were drawn. */
  const wide = useMemo(() => {
    const sized = what.columns.map((column) => ({ ...column, ...(widths[column.id] && { width: Math.round(widths[column.id]!) }) }));
    return { ...asked, what: { ...what, columns: sized } };
  }, [asked, what, widths]);
  const drawn = useMemo(() => what.columns.filter(({ hidden }) => !hidden), [what.columns]);
  const frozen = Math.min(drawn.length, what.frozen ?? frozenOf(drawn));
  const { head: newest, rowAt, onSight, error } = useRegister(project.id, asked);
  // What was shown stays until what is asked for now is there: forms above the list are not taken away while they are filled in.
  const [head, setHead] = useState(newest);
  if (newest && newest !== head) setHead(newest);
  const [at, setAt] = useState<Spot>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<Spot>({ row: 0, column: 0 });
  const [editing, setEditing] = useState<{ text: string }>();
  const [setting, setSetting] = useState<readonly Brief[]>([]);
  const { write, refused, busy } = useCells(project.id);
  const groups = useMemo(() => (head?.groups ?? []).map(({ values, count }, at) => ({ id: values.join(' · '), count, at })), [head?.groups]);
  const rows = useMemo(() => buildGroupedRows(head?.rowCount ?? 0, groups, new Set()), [head?.rowCount, groups]);
  const tallied = (tallies: readonly (string | number | null)[] = []) =>
    new Map(
      what.columns.flatMap(({ id, tally }, at) =>
        tally && tallies[at] !== undefined && tallies[at] !== null ? [[id, sayTallied(tally, tallies[at])] as const] : [],
      ),
    );
  const shownAt = (index: number): RegisterRow | GroupRow | undefined => {
    if (index >= rows.count) return undefined;
    const row = rows.rowAt(index);
    if (!('group' in row)) return rowAt(row.link);
    return { ...row, tallies: tallied(head?.groups[groups.find(({ id }) => id === row.group)?.at ?? -1]?.tallies) };
  };
  const itemAt = (index: number): RegisterRow | undefined => {
    const row = shownAt(index);
    return row && 'item' in row ? row : undefined;
  };
  const ofAt = itemAt(at.row);
  useAtHand(ofAt ? [ofAt.item] : []);
  const columns = useMemo<GridColumn[]>(
    () =>
      drawn.map((column) => ({
        id: column.id,
        name: sayColumn(scheme, column),
        width: widths[column.id] ?? columnWidth(column, findOffer(scheme, column.shown)?.type),
        field: head?.columns.find(({ id }) => id === column.id)?.field ?? null,
      })),
    [drawn, scheme, widths, head?.columns],
  );
  // What stands around the rows is not drawn anew with every window of them.
  const change = useStable((next: Partial<RegisterWhat>) => {
    set({ what: JSON.stringify({ ...what, ...next }) });
    // Above the first row of a group stands its name.
    go({
      row: (next.group ?? what.group).length > 0 ? 1 : 0,
      column: Math.max(0, Math.min(at.column, (next.columns ?? what.columns).filter(({ hidden }) => !hidden).length - 1)),
    });
  });
  const go = (to: Spot, from = to) => {
    setEditing(undefined);
    setAt(to);
    setAnchor(from);
  };
  const area = areaOf(at, anchor);
  /** Rows that are still those of other columns are read by the names of these. */
  const placeOfColumn = useMemo(() => new Map(head?.columns.map(({ id }, index) => [id, index])), [head?.columns]);
  const valueAt = (row: RegisterRow, column: number): RegisterValue => row.cells[placeOfColumn.get(columns[column]!.id) ?? -1] ?? null;
  const edit = (text?: string) => {
    const field = columns[at.column]?.field;
    if (!ofAt || ofAt.isContext) return;
    if (moment) return notify(`You look at it as of ${moment.says}: nothing can be written there. Alt N leads back to now.`, 'info');
    if (!field) return notify('This cell is computed: what it shows is written where it stands.', 'info');
    setEditing({ text: text ?? refused.get(keyOfCell(ofAt, field))?.text ?? textOf(valueAt(ofAt, at.column)) });
  };
  const store = (text: string, then: 'below' | 'above' | 'beside' | 'before' | 'stay') => {
    const field = columns[at.column]?.field;
    if (ofAt && field && text !== textOf(valueAt(ofAt, at.column))) write([{ row: ofAt, field, text }]);
    setEditing(undefined);
    const by = { below: [1, 0], above: [-1, 0], beside: [0, 1], before: [0, -1], stay: [0, 0] }[then] as [number, number];
    if (then === 'stay') return;
    go({ row: Math.max(0, Math.min(rows.count - 1, at.row + by[0])), column: Math.max(0, Math.min(columns.length - 1, at.column + by[1])) });
  };
  const { readChosen, copy, paste, fill, chosenRows } = useRange({
    ...{ area, rows, itemAt, columns, valueAt, write },
    read: (offset, limit) => fetchRegister(project.id, asked, offset, limit).then((reply) => reply.rows),
    onPasted: (from, to) => {
      setAnchor(from);
      setAt(to);
    },
  });
  /** One value for all rows of the range, also for those that were never in sight. */
  const setField = useStable(() => void readChosen().then((items) => setSetting(items), notifyError));
  const drawCell = useCallback(
    (row: RegisterRow, one: GridColumn, index: number) =>
      drawValue({
        row,
        value: row.cells[placeOfColumn.get(one.id) ?? -1] ?? null,
        sort: drawn[index]!.shown.sort,
        isOwn: drawn[index]!.way.length === 0,
        type: head?.columns[placeOfColumn.get(one.id) ?? -1]?.type ?? null,
        refusal: one.field ? refused.get(keyOfCell(row, one.field)) : undefined,
        isFaint: litNodes?.has(row.item.node) === false,
        fills,
        addressOf: addressOfItem,
      }),
    [placeOfColumn, drawn, head?.columns, refused, litNodes, fills, addressOfItem],
  );
  const print = async () => {
    if (head && head.rowCount > MOST_PRINTED) notify(`The first ${figure(MOST_PRINTED)} rows are printed; all of them can be saved.`, 'info');
    const taken: RegisterRow[] = [];
    while (taken.length < Math.min(MOST_PRINTED, head?.rowCount ?? 0)) {
      const { rows: more } = await fetchRegister(project.id, asked, taken.length, 500);
      if (more.length === 0) break;
      taken.push(...more);
    }
    let from = 0;
    const groupAt = new Map(groups.map(({ id, count }) => [(from += count) - count, `${id || 'not said'} (${count})`]));
    const says = [counted(head?.total ?? 0, 'item'), ...what.conditions.map((condition) => sayCondition(scheme, condition))].join(', ');
    printRegister({ title: `${project.name}: ${kindName(what, scheme)}`, says, columns, rows: taken, groupAt, valueAt });
  };
  const printNow = useStable(() => void print().catch(notifyError));
  const chooseKind = useStable((value: string) => set({ kind: value, what: value === 'all' ? JSON.stringify(readWhat(scheme, '', '\u0000')) : '' }));
  const chooseWhere = useStable((next: RegisterWhere) => set({ where: writeWhere(next) }));
  const drawHead = useCallback(
    ({ id, name }: GridColumn, place: number) => (
      <>
        <SortHead name={name} sort={what.sort} id={id} onSort={(also) => change({ sort: sortBy(what, id, also) })} />
        <HeadMenu {...{ what, name, place, frozen }} column={drawn[place]!} onChange={change} />
      </>
    ),
    [what, drawn, frozen, change],
  );
  const resize = useCallback(({ id }: GridColumn, width: number) => setWidths((before) => ({ ...before, [id]: width })), []);
  const ofNow = ofAt && !ofAt.isContext ? ofAt.item : undefined;
  const adding = useMemo(() => !moment && <AddRow what={what} where={where} at={ofNow} />, [moment, what, where, ofNow]);
  const onKey = (event: React.KeyboardEvent): boolean => {
    const far = event.ctrlKey || event.metaKey;
    if (far && event.key.toLowerCase() === 'd') void fill((column, first) => textOf(valueAt(first, column)), 1).catch(notifyError);
    else if (event.altKey && event.key === 'ArrowDown')
      [...document.querySelectorAll<HTMLElement>('[data-menu]')].find(({ dataset }) => dataset.menu === columns[at.column]?.id)?.click();
    else if (far || event.altKey) return false;
    else if (event.key === 'Enter' || event.key === 'F2') edit();
    else if (event.key === 'Delete' || event.key === 'Backspace') void fill(() => '', 0).catch(notifyError);
    else if (event.key === 'Escape') setAnchor(at);
    else if (!columns[at.column]?.field && event.key === 'o' && ofAt) void navigate(itemAddress(ofAt.item.reference));
    else if (!columns[at.column]?.field && event.key === 'e') setField();
    else if (event.key.length === 1 && event.key !== '?' && event.key !== '/' && columns[at.column]?.field) edit(event.key === ' ' ? undefined : event.key);
    else return false;
    return true;
  };
  if (error) return <ErrorNote error={error} />;
  if (!head) return <Loading what="the register" />;
  const column = columns[at.column];
  const fieldOf = (id: string | null | undefined) =>
    id?.startsWith('field:') ? scheme.kinds.find((one) => one.id === ofAt?.item.kind)?.fields.find((one) => one.id === id.slice(6)) : undefined;
  return (
    <Page
      fill
      lead={`${counted(head.total, what.rows === 'usages' ? 'row' : 'item')}${through ? ` seen through “${lens?.seen?.name ?? 'the lens'}”` : ''}${busy ? ', writing…' : ''}`}
      actions={<RegisterActions what={what} where={where} asked={wide} onPrint={printNow} onKind={chooseKind} onWhere={chooseWhere} onChange={change} />}
    >
      <Flex direction="column" h="100%" bg="bg.panel" borderTopWidth="1px">
        <WhatBar what={what} unknown={head.unknown} chosen={chosenRows.length} onSetField={setField} onChange={change} adding={adding} />
        {head.rowCount === 0 ? (
          <EmptyState title="No item passes">
            Leave out a condition, look in another place{through && ', through another lens'}, or choose another kind.
          </EmptyState>
        ) : (
          <Box flex="1" minH="0">
            <Grid
              label="Register"
              columns={columns}
              frozen={frozen}
              foot={what.columns.some(({ tally }) => tally) ? tallied(head.tallies) : undefined}
              count={rows.count}
              rowHeight={ROW}
              rowAt={shownAt}
              numberAt={(index) => {
                const row = index < rows.count ? rows.rowAt(index) : undefined;
                return row && 'link' in row ? row.link + 1 : undefined;
              }}
              at={at}
              anchor={anchor}
              editing={editing !== undefined}
              editor={
                editing && column && ofAt ? (
                  <CellEditor label={column.name} field={fieldOf(column.field)} value={editing.text} onStore={store} onLeave={() => setEditing(undefined)} />
                ) : null
              }
              onGo={go}
              onKey={onKey}
              onEdit={() => edit()}
              onSight={(first, last) => onSight(placeOf(rows, first), placeOf(rows, last))}
              onResize={resize}
              onCopy={copy}
              onTaken={(reference, spot) => {
                const [row, field] = [itemAt(spot.row), columns[spot.column]?.field];
                if (!row || !field || row.isContext) return;
                const known = textOf(valueAt(row, spot.column));
                go(spot);
                write([{ row, field, text: known ? `${known}, ${reference}` : reference }]);
              }}
              onPaste={(text) => void paste(text).catch(notifyError)}
              head={drawHead}
              cell={drawCell}
            />
          </Box>
        )}
      </Flex>
      {setting.length > 0 && <ChangeItemsDialog way="field" items={setting} onClose={() => setSetting([])} onDone={() => setSetting([])} />}
    </Page>
  );
}

function placeOf(rows: ReturnType<typeof buildGroupedRows>, index: number): number {
  if (rows.count === 0) return 0;
  for (let at = Math.min(index, rows.count - 1); at < rows.count; at++) {
    const row = rows.rowAt(at);
    if ('link' in row) return row.link;
  }
  return 0;
}
