import { Box, Flex } from '@chakra-ui/react';
import type { TrayEntry } from '@coomb/contract';
import {
  alignSheetRecipe,
  applySheetRecipe,
  countHeaderRows,
  proposeField,
  proposeSheetColumns,
  proposeSheetRecipe,
  type SheetRecipe,
  type SourceSheet,
  offeredKinds,
  findKind,
  holdsOf,
  hasRole,
} from '@coomb/core';
import { useMemo, useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { Page } from '../../../shared/ui/page';
import { Panes } from '../../../shared/ui/panes';
import { RecipeBar } from '../../recipes/RecipeBar';
import { FieldsOfRest } from '../recipe-forms/FieldsOfRest';
import { ImportBar } from './ImportBar';
import { OutcomeList } from './OutcomeList';
import { SheetOptions } from '../recipe-forms/SheetOptions';
import { findCell, SheetView } from './SheetView';
import { describeOutcome, proposePrefix } from './outcome-words';
import { RemarksPanel } from './RemarksPanel';
import { useReadAs } from '../queries';
import { useImportTarget } from './use-import-target';
import { useFileRecipe, useOlderRecipe } from './use-file-recipe';

interface Props {
  entry: TrayEntry;
  content: Extract<TrayEntry['content'], { type: 'sheets' }>;
}

function nameRows(row: number, rows: number): string {
  return rows > 1 ? `column names in rows ${row - rows + 2} to ${row + 1}` : `column names in row ${row + 1}`;
}

/** A workbook or separated values: columns with their meaning, and the items they become. */
export function SheetGather({ entry, content }: Props) {
  const { scheme, id: projectId } = useProject();
  const sheets = content.sheets as SourceSheet[];
  const file = useFileRecipe(entry.id, 'sheet', content.recipe as SheetRecipe, (recipe) => alignSheetRecipe(recipe, sheets));
  const { recipe, setRecipe, deferred, kept, departures, put } = file;
  const kind = findKind(scheme, recipe.kind);
  const outcome = useMemo(() => applySheetRecipe(scheme, deferred, sheets), [scheme, deferred, sheets]);
  const sheet = sheets.find((one) => one.name === recipe.sheet);
  const [shown, setShown] = useState<{ row: number; column?: number }>();
  const readAs = useReadAs(projectId, entry.id);
  const to = useImportTarget(entry, { sheetRecipe: deferred });
  const valuesOf = (column: number) => (sheet?.rows.slice(recipe.headerRow + 1) ?? []).map((row) => row[column] ?? '');
  const rest = recipe.columns.flatMap(({ name, meaning }, at) =>
    meaning.as === 'ignore' && name ? [{ at, name, proposed: () => proposeField(valuesOf(at)) }] : [],
  );
  const issues = [...departures, ...entry.issues, ...outcome.issues, ...(to.found?.issues ?? [])];
  const like = useOlderRecipe(to.older, entry.name, 'sheet', file.isProposed, put);
  const reread = (part: Partial<SheetRecipe>) => {
    const next = { ...recipe, ...part };
    const own = sheets.find((one) => one.name === next.sheet);
    setRecipe({ ...next, columns: own ? proposeSheetColumns(scheme, next.kind, own, next.headerRow, next.headerRows) : [] });
  };
  return (
    <Flex direction="column" h="100%">
      <Box flex="1" minH="0">
        <Page
          title={entry.name}
          fill
          actions={
            <>
              <RecipeBar file={entry.name} body={{ reads: 'sheet', recipe }} kept={kept} like={like} onPut={put} />
              {sheets.length > 1 && (
                <Choice
                  label="Sheet"
                  value={recipe.sheet}
                  options={sheets.map((one) => ({ value: one.name, label: one.name }))}
                  onChange={(name) =>
                    setRecipe(
                      proposeSheetRecipe(
                        scheme,
                        sheets.filter((one) => one.name === name),
                        recipe.kind,
                      ),
                    )
                  }
                />
              )}
              <Choice
                label="Row of column names"
                value={String(recipe.headerRow)}
                options={(sheet?.rows.slice(0, 20) ?? []).map((_, row) => ({
                  value: String(row),
                  label: nameRows(row, sheet ? countHeaderRows(sheet, row) : 1),
                }))}
                onChange={(row) => reread({ headerRow: Number(row), headerRows: sheet && countHeaderRows(sheet, Number(row)) })}
              />
              <Choice
                label="Kind of the items"
                value={recipe.kind}
                options={offeredKinds(scheme).map((kind) => ({ value: kind.id, label: `rows are ${kind.plural.toLowerCase()}` }))}
                onChange={(kind) => reread({ kind })}
              />
            </>
          }
        >
          <Flex h="100%" direction="column" borderTopWidth="1px">
            <SheetOptions
              scheme={scheme}
              recipe={recipe}
              merged={(sheet?.merges ?? []).length > 0 || sheet?.dialect !== undefined}
              dialect={sheet?.dialect}
              onDialect={(dialect) => readAs.mutate(dialect)}
              onChange={setRecipe}
            >
              <FieldsOfRest
                kind={recipe.kind}
                rest={rest}
                what={rest.length === 1 ? 'column' : 'columns'}
                onMade={(meanings) =>
                  setRecipe({ ...recipe, columns: recipe.columns.map((one, at) => ({ ...one, meaning: meanings.get(at) ?? one.meaning })) })
                }
              />
            </SheetOptions>
            <Box flex="1" minH="0">
              <Panes
                id="sheet"
                above
                panes={[
                  {
                    id: 'rows',
                    size: 52,
                    least: 150,
                    content: (
                      <Box h="100%" bg="bg.panel" borderTopWidth="1px">
                        {sheet && (
                          <SheetView
                            scheme={scheme}
                            recipe={recipe}
                            sheet={sheet}
                            outcome={outcome}
                            shown={shown}
                            proposeAt={(column) => proposeField(valuesOf(column))}
                            onMeaning={(column, meaning) =>
                              setRecipe({ ...recipe, columns: recipe.columns.map((one, at) => (at === column ? { ...one, meaning } : one)) })
                            }
                          />
                        )}
                      </Box>
                    ),
                  },
                  {
                    id: 'outcome',
                    size: 48,
                    least: 120,
                    content: (
                      <Flex h="100%" minH="0">
                        <OutcomeList scheme={scheme} outcome={outcome} issues={issues} onShow={({ row }) => row !== undefined && setShown({ row })} />
                        <RemarksPanel issues={issues} beside onShow={({ at }) => setShown(findCell(at))} />
                      </Flex>
                    ),
                  },
                ]}
              />
            </Box>
          </Flex>
        </Page>
      </Box>
      <ImportBar
        key={recipe.kind}
        entry={entry}
        to={to}
        holds={holdsOf(kind)}
        proposedName={hasRole(scheme, recipe.kind, 'test') ? kind!.plural : entry.name.replace(/\.[^.]*$/, '').replace(/^\d+\s+/, '')}
        proposedPrefix={proposePrefix(outcome, kind)}
        summary={describeOutcome(outcome, issues, to.found?.links)}
        wish={{ sheetRecipe: recipe, ...(kept && { recipe: kept }) }}
        disabled={outcome.drafts.length === 0}
      />
    </Flex>
  );
}
