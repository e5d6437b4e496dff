import { Box, Button, Flex, IconButton } from '@chakra-ui/react';
import type { Brief, RegisterRow, RegisterValue } from '@coomb/contract';
import { type Column, counted, figure, findOffer, type RegisterWhat, sayColumn, sayCondition } from '@coomb/core';
import { ArrowDown, ArrowUp, Download, X } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useFills } from '../../shared/colour-key/fills';
import { useLens } from '../../shared/lens/use-lens';
import { useProject } from '../../shared/live/project-queries';
import { useAtHand } from '../../shared/marks/at-hand';
import { saveFile } from '../../shared/save-file';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { buildGroupedRows } from '../../shared/ui/grouped-rows';
import { notify, notifyError } from '../../shared/ui/notices';
import { Page } from '../../shared/ui/page';
import { useItemAddress } from '../../shared/ui/reference';
import { ChangeItemsDialog } from '../acting/ChangeItemsDialog';
import { Cell } from './Cell';
import { CellEditor } from './CellEditor';
import { ColumnsForm } from './ColumnsForm';
import { ConditionForm } from './ConditionForm';
import { readWhat, readWhere, sortBy, writeWhere } from './definition';
import { Grid, type GridColumn } from './Grid';
import { KeepLens } from './KeepLens';
import { MakeKey } from './MakeKey';
import { fetchRegister, saveAs, useRegister } from './queries';
import { type Area, areaOf, readClipboard, type Spot, writeClipboard } from './selection';
import { keyOfCell, textOf, useCells, type Write } from './use-cells';

const address = z.object({
  /** What is shown, as it was composed; and the kind whose ready register is shown where nothing was. */
  what: z.string().max(20_000).default(''),
  kind: z.string().max(200).default(''),
  where: z.string().max(20_000).default(''),
});

const ROW = 27;
/** Rows that are pasted or copied at once. */
const MOST_AT_ONCE = 5_000;
const WINDOW = 500;

/** Items as rows of chosen columns, apart from where they are looked for. */
export function RegisterPage() {
  const project = useProject();
  const { scheme } = project;
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const [{ what: written, kind, where: place }, set] = useAddress(address);
  const what = useMemo(() => readWhat(scheme, written, kind), [scheme, written, kind]);
  const where = useMemo(() => readWhere(place), [place]);
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
  const through = lens?.mode === 'only' ? lens.lens : undefined;
  const asked = useMemo(() => ({ what, where: { ...where, ...(through && { lens: through }) } }), [what, where, through]);
  const { head: newest, rowAt, onSight, error } = useRegister(project.id, asked);
  // What was shown stays until what is asked for now is there: forms above the list are not taken away while they are filled in.
  const [head, setHead] = useState(newest);
  if (newest && newest !== head) setHead(newest);
  const [at, setAt] = useState<Spot>({ row: 0, column: 0 });
  const [anchor, setAnchor] = useState<Spot>({ row: 0, column: 0 });
  const [editing, setEditing] = useState<{ text: string }>();
  const [widths, setWidths] = useState<Record<string, number>>({});
  const [setting, setSetting] = useState<readonly Brief[]>([]);
  const { write, refused, busy } = useCells(project.id);
  const groups = useMemo(() => (head?.groups ?? []).map(({ values, count }) => ({ id: values.join(' · '), count })), [head?.groups]);
  const rows = useMemo(() => buildGroupedRows(head?.rowCount ?? 0, groups, new Set()), [head?.rowCount, groups]);
  const shownAt = (index: number): RegisterRow | { group: string; count: number } | undefined => {
    if (index >= rows.count) return undefined;
    const row = rows.rowAt(index);
    return 'group' in row ? row : rowAt(row.link);
  };
  const itemAt = (index: number): RegisterRow | undefined => {
    const row = shownAt(index);
    return row && 'item' in row ? row : undefined;
  };
  const ofAt = itemAt(at.row);
  useAtHand(ofAt ? [ofAt.item] : []);
  const columns = useMemo<GridColumn[]>(
    () =>
      what.columns.map((column) => ({
        id: column.id,
        name: sayColumn(scheme, column),
        width: widths[column.id] ?? widthOf(column, findOffer(scheme, column.shown)?.type),
        field: head?.columns.find(({ id }) => id === column.id)?.field ?? null,
      })),
    [what.columns, scheme, widths, head?.columns],
  );
  const change = (next: Partial<RegisterWhat>) => {
    set({ what: JSON.stringify({ ...what, ...next }) });
    // Above the first row of a group stands its name.
    go({ row: (next.group ?? what.group).length > 0 ? 1 : 0, column: Math.max(0, Math.min(at.column, (next.columns ?? what.columns).length - 1)) });
  };
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
    if (!field) return notify('This cell is computed: what it shows is written where it stands.', 'info');
    setEditing({ text: text ?? refused.get(keyOfCell(ofAt.item.id, field))?.text ?? textOf(valueAt(ofAt, at.column)) });
  };
  const store = (text: string, then: 'below' | 'above' | 'beside' | 'before' | 'stay') => {
    const field = columns[at.column]?.field;
    if (ofAt && field && text !== textOf(valueAt(ofAt, at.column))) write([{ row: ofAt, field, text }]);
    setEditing(undefined);
    const by = { below: [1, 0], above: [-1, 0], beside: [0, 1], before: [0, -1], stay: [0, 0] }[then] as [number, number];
    if (then === 'stay') return;
    go({ row: Math.max(0, Math.min(rows.count - 1, at.row + by[0])), column: Math.max(0, Math.min(columns.length - 1, at.column + by[1])) });
  };
  /** Rows of a stretch of the list, also those that were never in sight. */
  const readRows = async (first: number, last: number): Promise<(RegisterRow | undefined)[]> => {
    const known = Array.from({ length: last - first + 1 }, (_, by) => itemAt(first + by));
    const missing = known.flatMap((row, by) => {
      const one = row ? undefined : rows.rowAt(first + by);
      return one && 'link' in one ? [{ by, place: one.link }] : [];
    });
    if (missing.length === 0) return known;
    const [from, to] = [missing[0]!.place, missing.at(-1)!.place];
    const read = new Map<number, RegisterRow>();
    for (let offset = from; offset <= to; offset += WINDOW) {
      const reply = await fetchRegister(project.id, asked, offset, Math.min(WINDOW, to - offset + 1));
      reply.rows.forEach((row, by) => read.set(offset + by, row));
    }
    for (const { by, place: link } of missing) known[by] = read.get(link);
    return known;
  };
  const within = (count: number) => {
    if (count <= MOST_AT_ONCE) return true;
    notify(`At most ${figure(MOST_AT_ONCE)} rows are taken at once.`, 'info');
    return false;
  };
  const asText = (from: readonly (RegisterRow | undefined)[], { left, right }: Area) =>
    writeClipboard(from.map((row) => (row ? columns.slice(left, right + 1).map((_, by) => textOf(valueAt(row, left + by))) : [''])));
  const copy = (of: Area): string | undefined => {
    const stretch = Array.from({ length: Math.min(of.bottom, rows.count - 1) - of.top + 1 }, (_, by) => itemAt(of.top + by));
    if (stretch.every((row) => row !== undefined)) return asText(stretch, of);
    if (!within(stretch.length)) return undefined;
    readRows(of.top, Math.min(of.bottom, rows.count - 1)).then(async (all) => {
      await navigator.clipboard.writeText(asText(all, of));
      notify(`${counted(all.length, 'row')} copied.`);
    }, notifyError);
    return undefined;
  };
  const paste = async (text: string) => {
    const cells = readClipboard(text);
    const single = cells.length === 1 && cells[0]!.length === 1;
    const height = single ? area.bottom - area.top + 1 : cells.length;
    const breadth = single ? area.right - area.left + 1 : Math.max(...cells.map((row) => row.length));
    const last = Math.min(rows.count - 1, area.top + height - 1);
    if (!within(last - area.top + 1)) return;
    const onto = await readRows(area.top, last);
    const computed = new Set<string>();
    const writes: Write[] = [];
    for (const [down, row] of onto.entries())
      for (let right = 0; right < breadth; right++) {
        const column = columns[area.left + right];
        const said = single ? cells[0]![0]! : cells[down]?.[right];
        if (!row || row.isContext || !column || said === undefined) continue;
        if (!column.field) computed.add(column.name);
        else if (said !== textOf(valueAt(row, area.left + right))) writes.push({ row, field: column.field, text: said });
      }
    if (computed.size > 0) notify(`Not pasted, for it is computed: ${[...computed].join(', ')}.`, 'info');
    if (cells.length > onto.length) notify(`${figure(cells.length - onto.length)} of the pasted rows stand below the last row, and are left out.`, 'info');
    write(writes);
    setAnchor({ row: area.top, column: area.left });
    setAt({ row: last, column: Math.min(columns.length - 1, area.left + breadth - 1) });
  };
  const fill = async (textFor: (column: number, first: RegisterRow) => string, from: number) => {
    if (!within(area.bottom - area.top + 1)) return;
    const onto = await readRows(area.top, Math.min(area.bottom, rows.count - 1));
    const first = onto[0];
    if (!first) return;
    const writes = onto.slice(from).flatMap((row) =>
      columns.slice(area.left, area.right + 1).flatMap((column, by): Write[] => {
        if (!row || row.isContext || !column.field) return [];
        const text = textFor(area.left + by, first);
        return text === textOf(valueAt(row, area.left + by)) ? [] : [{ row, field: column.field, text }];
      }),
    );
    write(writes);
  };
  const chosenRows = Array.from({ length: area.bottom - area.top + 1 }, (_, by) => area.top + by).filter(
    (row) => row < rows.count && 'link' in rows.rowAt(row),
  );
  /** One value for all rows of the range, also for those that were never in sight. */
  const setField = () => {
    if (chosenRows.length === 0 || !within(chosenRows.length)) return;
    readRows(area.top, Math.min(area.bottom, rows.count - 1)).then(
      (all) => setSetting(all.flatMap((row) => (row && !row.isContext ? [row.item] : []))),
      notifyError,
    );
  };
  const drawCell = useCallback(
    (row: RegisterRow, one: GridColumn, index: number) => (
      <Cell
        row={row}
        value={row.cells[placeOfColumn.get(one.id) ?? -1] ?? null}
        sort={what.columns[index]!.shown.sort}
        isOwn={what.columns[index]!.way.length === 0}
        type={head?.columns[placeOfColumn.get(one.id) ?? -1]?.type ?? null}
        refusal={one.field ? refused.get(keyOfCell(row.item.id, one.field)) : undefined}
        isFaint={litNodes?.has(row.item.node) === false}
        fills={fills}
        addressOf={addressOfItem}
      />
    ),
    [placeOfColumn, what.columns, head?.columns, refused, litNodes, fills, addressOfItem],
  );
  const onKey = (event: React.KeyboardEvent): boolean => {
    const far = event.ctrlKey || event.metaKey;
    if (far && event.key.toLowerCase() === 'd') void fill((column, first) => textOf(valueAt(first, column)), 1).catch(notifyError);
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
  const save = (format: 'xlsx' | 'csv') =>
    saveAs(project.id, format, { ...asked, name: kindName(what, scheme) }).then(({ name, blob }) => saveFile(name, blob), notifyError);
  if (error) return <ErrorNote error={error} />;
  if (!head) return <Loading what="the register" />;
  const column = columns[at.column];
  const fieldOf = (id: string | null | undefined) =>
    id?.startsWith('field:') ? scheme.kinds.find((one) => one.id === ofAt?.item.kind)?.fields.find((one) => one.id === id.slice(6)) : undefined;
  const kinds = scheme.kinds.filter(({ retired }) => !retired);
  return (
    <Page
      fill
      lead={`${counted(head.total, 'item')}${busy ? ', writing…' : ''}`}
      actions={
        <>
          <Choice
            label="What it shows"
            value={what.kinds.length === 1 ? what.kinds[0]! : what.kinds.length === 0 ? 'all' : ''}
            options={[
              ...(what.kinds.length > 1 ? [{ value: '', label: 'several kinds' }] : []),
              { value: 'all', label: 'items of every kind' },
              ...kinds.map(({ id, plural }) => ({ value: id, label: plural })),
            ]}
            onChange={(value) => value && set({ kind: value, what: value === 'all' ? JSON.stringify(readWhat(scheme, '', '\u0000')) : '' })}
          />
          <Choice
            label="Where"
            value={where.collections.join()}
            options={[{ value: '', label: 'everywhere' }, ...project.collections.map(({ id, name }) => ({ value: id, label: `in ${name}` }))]}
            onChange={(value) => set({ where: writeWhere({ collections: value ? [value] : [], below: [] }) })}
          />
          <Choice
            label="Shape"
            value={what.shape}
            options={[
              { value: 'list', label: 'as a list' },
              { value: 'outline', label: 'as an outline' },
            ]}
            onChange={(value) => change({ shape: value as 'list', ...(value === 'outline' && { sort: [], group: [] }) })}
          />
          <ColumnsForm kinds={what.kinds} columns={what.columns} onChange={(next) => change({ columns: next })} />
          <KeptViews project={project.id} sort="register" body={{ what: JSON.stringify(what) }} />
          {(['xlsx', 'csv'] as const).map((format) => (
            <Button key={format} size="xs" variant="outline" aria-label={`Save as .${format}`} onClick={() => void save(format)}>
              <Download size={13} /> .{format}
            </Button>
          ))}
        </>
      }
    >
      <Flex direction="column" h="100%" bg="bg.panel" borderTopWidth="1px">
        <Flex align="center" gap="1.5" px="4" py="1.5" wrap="wrap" borderBottomWidth="1px" fontSize="13px" color="fg.muted" flexShrink={0}>
          {kindName(what, scheme)}
          {what.conditions.map((condition, place) => {
            const words = sayCondition(scheme, condition);
            return (
              <Flex
                key={`${place} ${words}`}
                align="center"
                borderWidth="1px"
                borderRadius="l2"
                pl="2"
                bg="bg.subtle"
                color={head.unknown.includes(place) ? 'fg.warning' : 'fg'}
              >
                {place > 0 && (
                  <Box color="fg.muted" mr="1">
                    {what.match === 'all' ? 'and' : 'or'}
                  </Box>
                )}
                {words}
                <IconButton
                  aria-label={`Leave out: ${words}`}
                  title="Leave it out"
                  size="2xs"
                  variant="plain"
                  onClick={() => change({ conditions: what.conditions.filter((one) => one !== condition) })}
                >
                  <X size={12} />
                </IconButton>
              </Flex>
            );
          })}
          <ConditionForm kinds={what.kinds} onAdd={(condition) => change({ conditions: [...what.conditions, condition] })} />
          {what.conditions.length > 1 && (
            <Choice
              label="Which must hold"
              value={what.match}
              options={[
                { value: 'all', label: 'all of these' },
                { value: 'any', label: 'any of these' },
              ]}
              onChange={(value) => change({ match: value as 'all' })}
            />
          )}
          <KeepLens what={what} />
          <MakeKey />
          <Box flex="1" />
          {what.shape === 'list' && (
            <Choice
              label="Group by"
              value={what.group.join('\u0001')}
              options={[
                { value: '', label: 'not grouped' },
                ...(what.group.length > 1 ? [{ value: what.group.join('\u0001'), label: 'by several columns' }] : []),
                ...columns.map(({ id, name }) => ({ value: id, label: `by ${name}` })),
              ]}
              onChange={(value) => change({ group: value ? value.split('\u0001') : [] })}
            />
          )}
          <Button size="2xs" variant="outline" disabled={chosenRows.length === 0} onClick={setField} title="One value for all rows of the range (E)">
            Set a field{chosenRows.length > 1 ? ` of ${figure(chosenRows.length)}` : ''}…
          </Button>
        </Flex>
        {head.rowCount === 0 ? (
          <EmptyState title="No item passes">Leave out a condition, look in another place, or choose another kind.</EmptyState>
        ) : (
          <Box flex="1" minH="0">
            <Grid
              label="Register"
              columns={columns}
              frozen={frozenOf(what.columns)}
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
              onResize={({ id }, width) => setWidths((before) => ({ ...before, [id]: width }))}
              onCopy={copy}
              onPaste={(text) => void paste(text).catch(notifyError)}
              head={({ id, name }) => <SortHead name={name} sort={what.sort} id={id} onSort={(also) => change({ sort: sortBy(what, id, also) })} />}
              cell={drawCell}
            />
          </Box>
        )}
      </Flex>
      {setting.length > 0 && <ChangeItemsDialog way="field" items={setting} onClose={() => setSetting([])} onDone={() => setSetting([])} />}
    </Page>
  );
}

function SortHead({ id, name, sort, onSort }: { id: string; name: string; sort: RegisterWhat['sort']; onSort: (also: boolean) => void }) {
  const place = sort.findIndex(({ column }) => column === id);
  return (
    <Box asChild flex="1" minW="0" h="100%" display="flex" alignItems="center" gap="1" fontSize="12.5px" fontWeight="600" textAlign="left">
      <button type="button" tabIndex={-1} title={`${name}: click to sort, with Shift also by it`} onClick={(event) => onSort(event.shiftKey)}>
        <Box truncate title={name}>
          {name}
        </Box>
        {place >= 0 && (sort[place]!.descending ? <ArrowDown size={12} aria-label="sorted down" /> : <ArrowUp size={12} aria-label="sorted up" />)}
        {place >= 0 && sort.length > 1 && <Box fontSize="10px">{place + 1}</Box>}
      </button>
    </Box>
  );
}

/** Reference and title stay in sight, where they come first. */
function frozenOf(columns: readonly Column[]): number {
  let count = 0;
  while (count < 2 && columns[count] && columns[count]!.way.length === 0 && ['reference', 'title'].includes(columns[count]!.shown.sort)) count++;
  return count;
}

function widthOf({ way, shown, as }: Column, type: string | undefined): number {
  if (shown.sort === 'reference' && way.length === 0) return 92;
  if (shown.sort === 'title' && way.length === 0) return 300;
  if (shown.sort === 'text') return 380;
  if (as === 'count' || type === 'number') return 96;
  return type === 'moment' ? 104 : way.length > 0 ? 170 : 132;
}

function placeOf(rows: ReturnType<typeof buildGroupedRows>, index: number): number {
  if (rows.count === 0) return 0;
  for (let at = Math.min(index, rows.count - 1); at < rows.count; at++) {
    const row = rows.rowAt(at);
    if ('link' in row) return row.link;
  }
  return 0;
}

const kindName = ({ kinds }: RegisterWhat, scheme: { kinds: readonly { id: string; plural: string }[] }) =>
  kinds.length === 0 ? 'Items' : kinds.map((id) => scheme.kinds.find((one) => one.id === id)?.plural ?? id).join(', ');
