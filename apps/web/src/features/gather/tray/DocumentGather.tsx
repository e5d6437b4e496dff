import { Box, Flex } from '@chakra-ui/react';
import type { TrayEntry } from '@coomb/contract';
import { applyDocumentRecipe, type DocumentRecipe, findDocumentDepartures, proposeMeaning, type RecipeOutcome, type SourceBlock, findKind } from '@coomb/core';
import { useMemo, useState } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { Page } from '../../../shared/ui/page';
import { Panes } from '../../../shared/ui/panes';
import { RecipeBar } from '../../recipes/RecipeBar';
import { DocumentRecipeForm } from '../recipe-forms/DocumentRecipeForm';
import { DocumentView } from './DocumentView';
import { ImportBar } from './ImportBar';
import { OutcomeList } from './OutcomeList';
import { describeOutcome, proposePrefix } from './outcome-words';
import { type PickedPart, pickPart } from '../recipe-forms/pick-part';
import { RemarksPanel } from './RemarksPanel';
import { TrayFile } from './tray-pictures';
import { useImportTarget } from './use-import-target';
import { useFileRecipe, useOlderRecipe } from './use-file-recipe';

interface Props {
  entry: TrayEntry;
  content: Extract<TrayEntry['content'], { type: 'document' }>;
}

/** A document as read, the recipe, and the outline it becomes, side by side and live. */
export function DocumentGather({ entry, content }: Props) {
  const { scheme } = useProject();
  const proposed = content.recipe as DocumentRecipe;
  /** A ready recipe says nothing of tables and labels: those are proposed from this document. */
  const file = useFileRecipe(entry.id, 'document', proposed, (recipe, id) => ({
    recipe: id?.startsWith('ready-') ? { ...recipe, labels: proposed.labels, tables: proposed.tables, phrases: proposed.phrases } : recipe,
    issues: [],
  }));
  const { recipe, setRecipe, deferred, kept, put } = file;
  const [shown, setShown] = useState<{ block: number; row?: number | undefined }>();
  const blocks = content.blocks as SourceBlock[];
  const { outcome, problem } = useMemo((): { outcome: RecipeOutcome; problem?: string } => {
    try {
      return { outcome: applyDocumentRecipe(scheme, deferred, { blocks, pictures: new Map() }) };
    } catch (error) {
      return { outcome: { drafts: [], links: [], issues: [] }, problem: error instanceof Error ? error.message : String(error) };
    }
  }, [scheme, deferred, blocks]);
  const to = useImportTarget(entry, { documentRecipe: deferred });
  /** A click in the document goes to the line of the recipe that says what such parts mean; a part it does not know yet is taken in. */
  const pick = (part: PickedPart) => {
    const picked = pickPart(recipe, part);
    if (!picked) return;
    setRecipe(picked.recipe);
    setTimeout(() => focusControl(picked.control, picked.table), 60);
  };
  const addPhrase = (words: string) => {
    if (!(recipe.phrases ?? []).some((one) => one.words.toLowerCase() === words.toLowerCase()))
      setRecipe({ ...recipe, phrases: [...(recipe.phrases ?? []), { words, meaning: proposeMeaning(scheme, recipe.kind, words) }] });
    setTimeout(() => focusControl(`Meaning of ${words}`, 'phrases'), 60);
  };
  const like = useOlderRecipe(to.older, entry.name, 'document', file.isProposed, put);
  const departures = useMemo(() => (kept || like ? findDocumentDepartures(deferred, { blocks }) : []), [kept, like, deferred, blocks]);
  const issues = [...departures, ...entry.issues, ...outcome.issues, ...(to.found?.issues ?? [])];
  const base = entry.name.replace(/\.[^.]*$/, '').replace(/^\d+\s+/, '');
  const showIssue = (at: string) => {
    const draft = outcome.drafts.find((one) => one.place.says === at);
    const number = Number(/(?:paragraph|table) (\d+)/.exec(at)?.[1]);
    const block = draft?.place.block ?? blocks.findIndex((one) => one.at === number && one.type === (at.startsWith('table') ? 'table' : 'paragraph'));
    if (block >= 0) setShown({ block, row: draft?.place.row });
  };
  return (
    <Flex direction="column" h="100%">
      <Box flex="1" minH="0">
        <Page
          title={entry.name}
          lead="Click a part of the text to say what it means."
          fill
          actions={<RecipeBar file={entry.name} body={{ reads: 'document', recipe }} kept={kept} like={like} onPut={put} />}
        >
          <Box h="100%" borderTopWidth="1px">
            <Panes
              id="document"
              panes={[
                {
                  id: 'text',
                  size: 46,
                  least: 240,
                  content: (
                    <TrayFile value={entry.id}>
                      <DocumentView blocks={blocks} outcome={outcome} shown={shown} onPick={pick} onPhrase={addPhrase} scheme={scheme} recipe={deferred} />
                    </TrayFile>
                  ),
                },
                {
                  id: 'recipe',
                  size: 24,
                  least: 300,
                  content: (
                    <Box h="100%" overflow="auto" bg="bg.panel">
                      <DocumentRecipeForm scheme={scheme} recipe={recipe} blocks={blocks} problem={problem} onChange={setRecipe} onPhrase={addPhrase} />
                    </Box>
                  ),
                },
                {
                  id: 'outcome',
                  size: 30,
                  least: 240,
                  content: (
                    <Flex h="100%" minW="0" direction="column">
                      <OutcomeList
                        scheme={scheme}
                        outcome={outcome}
                        issues={issues}
                        onShow={(place) => place.block !== undefined && setShown({ block: place.block, row: place.row })}
                      />
                      <RemarksPanel issues={issues} onShow={(issue) => showIssue(issue.at)} />
                    </Flex>
                  ),
                },
              ]}
            />
          </Box>
        </Page>
      </Box>
      <ImportBar
        entry={entry}
        to={to}
        holds="specification"
        proposedName={base}
        proposedPrefix={proposePrefix(outcome, findKind(scheme, recipe.kind))}
        summary={describeOutcome(outcome, issues, to.found?.links)}
        wish={{ documentRecipe: recipe, ...(kept && { recipe: kept }) }}
        disabled={problem !== undefined || outcome.drafts.length === 0}
      />
    </Flex>
  );
}

function focusControl(name: string, table: string | undefined): void {
  const parts = [...document.querySelectorAll<HTMLElement>('[data-table]')];
  const scope = table === undefined ? document : (parts.find((one) => one.dataset.table === table) ?? document);
  const control = [...scope.querySelectorAll<HTMLElement>('[aria-label]')].find((one) => one.getAttribute('aria-label') === name);
  control?.scrollIntoView({ block: 'center' });
  control?.focus();
}
