import { Box, Button } from '@chakra-ui/react';
import type { listUsed, MatrixScope, OutlineReply, ReplyOf } from '@coomb/contract';
import { comparedMarks, counted, figure, sayWay } from '@coomb/core';
import { ArrowLeftRight } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { useAddress } from '../../shared/address';
import { LitItems } from '../../shared/lens/lit';
import { useSeenOutline } from '../../shared/lens/use-lens';
import { findRequirements } from '../../shared/live/find-requirements';
import { useProject } from '../../shared/live/project-queries';
import { ofSameLife } from '../../shared/live/same-life';
import { useMoments } from '../../shared/live/use-moments';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { Choice } from '../../shared/ui/choice';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { useUsed } from '../linking/queries';
import { buildUseLines } from '../linking/use-lines';
import { listOf, matrixAddress, readMarks, readShown, swapSides, writeMarks } from './address';
import { ComparedBar } from './ComparedBar';
import { comparedGlyphs, glyphsOf } from './glyphs';
import { MarksBar } from './MarksBar';
import { Matrix } from './Matrix';
import { buildMatrixSides, type MatrixSide } from './matrix-sides';
import { useMatrix } from './queries';
import { SaveMatrix } from './SaveMatrix';
import { AsRegister } from '../acting/AsRegister';
import { SideForm, type SideAsked } from './SideForm';
import { useCompared } from './use-compared';
import { foldSide, levelOptions, useFold } from './use-fold';

/** Trace matrix: rows × columns, folding outlines with counts, marks of links and of ways through items between, gaps, link and unlink in the cell. */
export function MatrixPage() {
  const project = useProject();
  const outline = useSeenOutline();
  const [asked, set] = useAddress(matrixAddress);
  const { collections, scheme } = project;
  const isThere = (id: string) => collections.some((one) => one.id === id);
  const named = { rows: listOf(asked.rows).filter(isThere), columns: listOf(asked.columns).filter(isThere) };
  const rowIds = named.rows.length > 0 ? named.rows : [findRequirements(project)?.id ?? ''].filter(Boolean);
  const other = collections.find((one) => one.holds === 'tests' && !rowIds.includes(one.id)) ?? collections.find((one) => !rowIds.includes(one.id));
  const columnIds = named.columns.length > 0 ? named.columns : other ? [other.id] : rowIds;
  const scopeOf = (ids: readonly string[], kinds: string, below: string): MatrixScope => ({
    collections: [...ids],
    kinds: listOf(kinds),
    below: listOf(below),
  });
  const rows = scopeOf(rowIds, asked.rowKinds, asked.rowBelow);
  const columns = scopeOf(columnIds, asked.columnKinds, asked.columnBelow);
  const marks = readMarks(asked.marks);
  const [rowsBy, columnsBy] = [readShown(asked.rowsBy), readShown(asked.columnsBy)];
  const body = { rows, columns, marks, ...(rowsBy && { rowsBy }), ...(columnsBy && { columnsBy }) };
  const reply = useMatrix(project.id, body);
  const joined = ofSameLife(outline.data, reply.data);
  const { compared, error, gone } = useCompared(project.id, scheme, body, joined, asked.since, asked.differences);
  const moments = useMoments(project.id).options;
  const used = useUsed(project.id).data;
  const key = JSON.stringify({ rows, columns });
  const useLines = useMemo(
    () => (outline.data && asked.uses === 'lines' ? buildUseLines(used, new Map(outline.data.node.map((node, row) => [node, row]))) : undefined),
    [outline.data, used, asked.uses],
  );
  const sides = useMemo(
    () =>
      outline.data && joined
        ? buildMatrixSides(outline.data, {
            ...(JSON.parse(key) as { rows: MatrixScope; columns: MatrixScope }),
            ...{ entries: (compared ?? joined).entries, usagePaths: (compared ?? joined).usagePaths, order: asked.order },
            show: compared && asked.differences === 'only' ? 'linked' : asked.show,
            ...(compared && gone !== undefined && { gone }),
            ...{ rowGroups: joined.rowGroups, columnGroups: joined.columnGroups },
            ...(useLines && { uses: useLines }),
          })
        : undefined,
    [outline.data, joined, compared, gone, key, asked.show, asked.order, asked.differences, useLines],
  );
  const both = useMemo(() => sides && [sides.row, sides.column], [sides]);
  const { folded, flip, reset } = useFold(outline.data, both, asked.level);
  const hasUses = useMemo(
    () => (outline.data ? isUsedIn(outline.data, used, JSON.parse(key) as { rows: MatrixScope; columns: MatrixScope }) : false),
    [outline.data, used, key],
  );
  const glyphs = useMemo(() => (compared ? comparedGlyphs : glyphsOf(joined?.marks ?? [])), [compared, joined]);
  const wrong = outline.error ?? reply.error ?? error;
  if (wrong) return <ErrorNote error={wrong} />;
  if (collections.length === 0)
    return (
      <EmptyState alone title="Nothing is gathered yet">
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/gather`}>Gather</Link>
        </Box>{' '}
        a specification, a model or tests first: their items are the rows and columns.
      </EmptyState>
    );
  if (!sides || !outline.data || !joined || (asked.since > 0 && !compared)) return <Loading what="the matrix" />;
  const words = compared ? comparedMarks : undefined;
  const data = outline.data;
  const now = { ...asked, rows: rowIds.join(), columns: columnIds.join() };
  const swap = () => set(swapSides(now));
  const sideOf = (side: 'row' | 'column'): SideAsked =>
    side === 'row'
      ? { collections: rowIds, kinds: rows.kinds, below: asked.rowBelow, by: asked.rowsBy }
      : { collections: columnIds, kinds: columns.kinds, below: asked.columnBelow, by: asked.columnsBy };
  const names = (ids: readonly string[]) => ids.map((id) => collections.find((one) => one.id === id)?.name ?? '').join(', ');
  const choices = (
    <>
      <Choice
        label="Which lines"
        value={asked.show}
        options={[
          { value: 'all', label: 'everything' },
          { value: 'linked', label: 'what is linked only' },
          { value: 'rowGaps', label: 'rows with gaps only' },
          { value: 'columnGaps', label: 'columns with gaps only' },
        ]}
        onChange={(value) => set({ show: value as 'all' })}
      />
      <Choice
        label="In which order"
        value={asked.order}
        options={[
          { value: 'outline', label: 'as the outline' },
          { value: 'number', label: 'most links first' },
          { value: 'diagonal', label: 'along the diagonal' },
        ]}
        onChange={(value) => set({ order: value as 'outline' })}
      />
      <Choice
        label="How deep it is unfolded"
        value={asked.level}
        options={levelOptions('3', 'all levels')}
        onChange={(value) => {
          reset();
          set({ level: value as '' });
        }}
      />
      {hasUses && (
        <Choice
          label="Items used in several places"
          value={asked.uses}
          options={[
            { value: 'lines', label: 'a line for each use' },
            { value: 'together', label: 'all uses together' },
          ]}
          onChange={(value) => set({ uses: value as 'lines' })}
        />
      )}
      {(moments.length > 0 || asked.since > 0) && (
        <Choice
          label="Compare with"
          value={asked.since > 0 ? String(asked.since) : ''}
          width="10rem"
          options={[
            { value: '', label: 'not compared' },
            ...(asked.since > 0 && !moments.some(({ value }) => value === String(asked.since))
              ? [{ value: String(asked.since), label: `change ${asked.since}` }]
              : []),
            ...moments.map(({ value, label }) => ({ value, label: `with ${label}` })),
          ]}
          onChange={(value) => set({ since: Number(value) })}
        />
      )}
      {compared && (
        <Choice
          label="What of the comparison"
          value={asked.differences}
          options={[
            { value: 'all', label: 'with what stayed' },
            { value: 'only', label: 'what came or went only' },
          ]}
          onChange={(value) => set({ differences: value as 'all' })}
        />
      )}
    </>
  );
  const choicesAndMore = (
    <>
      {choices}
      <RowsAsRegister outline={data} side={sides.row} />
    </>
  );
  return (
    <Page
      lead={`${compared ? `${figure(compared.counts[1])} came, ${figure(compared.counts[2])} went since change ${asked.since}` : counted(sides.shown, marks.length > 0 ? 'mark' : 'link')}${outline.isThrough && sides.outside > 0 ? `; ${figure(sides.outside)} more beyond the lens` : ''}${
        sides.gathered ? `; mean distance from the diagonal ${percent(sides.gathered.after)}, in the outline’s order ${percent(sides.gathered.before)}` : ''
      }`}
      fill
      actions={
        <>
          <SideForm
            name="Rows"
            outline={data}
            asked={sideOf('row')}
            onChange={({ collections: ids, kinds, below, by }) => set({ rows: ids.join(), rowKinds: kinds.join(), rowBelow: below, rowsBy: by ?? '' })}
          />
          <Button size="xs" variant="outline" onClick={swap} title="Swap rows and columns (X)">
            <ArrowLeftRight size={13} /> Swap
          </Button>
          <SideForm
            name="Columns"
            outline={data}
            asked={sideOf('column')}
            onChange={({ collections: ids, kinds, below, by }) =>
              set({ columns: ids.join(), columnKinds: kinds.join(), columnBelow: below, columnsBy: by ?? '' })
            }
          />
          <SaveMatrix
            name={`${names(rowIds)} × ${names(columnIds)}${compared ? `, since change ${asked.since}` : ''}`.slice(0, 110)}
            glyphs={glyphs}
            matrix={() => {
              const [rowAxis, columnAxis] = [foldSide(data, sides.row, folded), foldSide(data, sides.column, folded)];
              return {
                ...{ outline: data, sides, rows: rowAxis, columns: columnAxis, cells: sides.cells.fold(rowAxis, columnAxis) },
                words: words ?? joined.marks.map(({ way }) => sayWay(scheme, way)),
              };
            }}
          />
          <KeptViews project={project.id} sort="matrix" body={now} />
        </>
      }
    >
      <Box display="flex" flexDirection="column" h="100%">
        {compared ? (
          <ComparedBar counts={compared.counts}>{choicesAndMore}</ComparedBar>
        ) : (
          <MarksBar
            isEvery={marks.length === 0}
            marks={joined.marks}
            glyphs={glyphs}
            kinds={{ rows: kindsOf(data, sides.row), columns: kindsOf(data, sides.column) }}
            onChange={(next) => set({ marks: writeMarks(next) })}
          >
            {choicesAndMore}
          </MarksBar>
        )}
        <Box flex="1" minH="0">
          {compared && asked.differences === 'only' && sides.shown === 0 ? (
            <EmptyState title="Nothing came or went">Between these items every link is what it was.</EmptyState>
          ) : (
            <LitItems outline={data} rows={outline.lit}>
              <Matrix
                key={key}
                outline={data}
                sides={sides}
                marks={joined.marks}
                isEvery={marks.length === 0}
                glyphs={glyphs}
                words={words}
                folded={folded}
                onFold={flip}
                onSwap={swap}
              />
            </LitItems>
          )}
        </Box>
      </Box>
    </Page>
  );
}

/** The items that stand as rows: those without links where gaps only are shown. */
function RowsAsRegister({ outline, side }: { outline: OutlineReply; side: MatrixSide }) {
  const items = useMemo(() => {
    const rows = [...new Set(side.rows)].filter((row) => row >= 0 && !outline.heading[row]);
    return rows.map((row) => ({ reference: outline.reference[row]!, kind: outline.kinds[outline.kind[row]!]! }));
  }, [outline, side]);
  return <AsRegister items={items} label="Rows as a register" />;
}

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;

/** Whether anything at either side is used in several places, so that each use may be a line. */
function isUsedIn(outline: OutlineReply, used: ReplyOf<typeof listUsed> | undefined, { rows, columns }: { rows: MatrixScope; columns: MatrixScope }): boolean {
  if (!used || used.items.length === 0) return false;
  const rowOf = new Map(outline.node.map((node, row) => [node, row]));
  const sides = new Set([...rows.collections, ...columns.collections].map((id) => outline.collections.indexOf(id)));
  return used.items.some(({ node }) => sides.has(outline.collection[rowOf.get(node) ?? -1] ?? -2));
}

function kindsOf(outline: { kinds: string[]; kind: number[]; heading: number[] }, side: MatrixSide): string[] {
  const found = new Set<number>();
  for (const row of side.rows) if (row >= 0 && !outline.heading[row]) found.add(outline.kind[row]!);
  return [...found].map((kind) => outline.kinds[kind]!);
}
