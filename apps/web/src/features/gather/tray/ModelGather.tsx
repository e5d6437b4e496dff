import { Box, Flex } from '@chakra-ui/react';
import type { TrayEntry } from '@coomb/contract';
import { alignModelRecipe, applyModelRecipe, figure, type ModelDocument, type ModelRecipe } from '@coomb/core';
import { useMemo } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { Page } from '../../../shared/ui/page';
import { RecipeBar } from '../../recipes/RecipeBar';
import { ModelRecipeForm } from '../recipe-forms/ModelRecipeForm';
import { ImportBar } from './ImportBar';
import { OutcomeList } from './OutcomeList';
import { describeOutcome } from './outcome-words';
import { RemarksPanel } from './RemarksPanel';
import { useImportTarget } from './use-import-target';
import { useFileRecipe, useOlderRecipe } from './use-file-recipe';

interface Props {
  entry: TrayEntry;
  content: Extract<TrayEntry['content'], { type: 'model' }>;
}

const notations = { uml: 'UML', bpmn: 'a process in BPMN', dmn: 'decisions in DMN', ssp: 'a system structure in SSP', ecore: 'Ecore' };

/** A model file: the sorts of its elements and relations with what each becomes, and the outline they become. */
export function ModelGather({ entry, content }: Props) {
  const { scheme } = useProject();
  // The reply counts what drawings show; the recipe asks for their names only.
  const model = useMemo(
    () =>
      ({ ...content, drawings: content.drawings.map((drawing) => ({ ...drawing, shapes: [], routes: [] })), unknown: new Map() }) as unknown as ModelDocument,
    [content],
  );
  const file = useFileRecipe(entry.id, 'model', content.recipe as ModelRecipe, (recipe) => alignModelRecipe(scheme, recipe, model));
  const { recipe, setRecipe, deferred, kept, departures, put } = file;
  const outcome = useMemo(() => applyModelRecipe(scheme, deferred, model), [scheme, deferred, model]);
  const to = useImportTarget(entry, { modelRecipe: deferred });
  const like = useOlderRecipe(to.older, entry.name, 'model', file.isProposed, put);
  const issues = [...departures, ...entry.issues, ...outcome.issues, ...(to.found?.issues ?? [])];
  const isCut = content.total > content.elements.length;
  const about = [
    content.notation === 'uml' ? '' : `${entry.label}: ${notations[content.notation]}.`,
    content.exporter ? `Written by ${content.exporter}.` : '',
    'Identifiers are kept; what has no place here goes out again unchanged.',
    isCut ? `Shown by its first ${figure(content.elements.length)} of ${figure(content.total)} elements.` : '',
  ];
  return (
    <Flex direction="column" h="100%">
      <Box flex="1" minH="0">
        <Page
          title={entry.name}
          lead={about.filter(Boolean).join(' ')}
          fill
          actions={<RecipeBar file={entry.name} body={{ reads: 'model', recipe }} kept={kept} like={like} onPut={put} />}
        >
          <Flex h="100%" borderTopWidth="1px">
            <Box w="430px" flexShrink={0} overflow="auto" bg="bg.panel" borderRightWidth="1px" px="4" py="3" fontSize="13.5px">
              <ModelRecipeForm scheme={scheme} content={content} recipe={recipe} onChange={setRecipe} />
            </Box>
            <Flex flex="1" minW="0" direction="column">
              <OutcomeList scheme={scheme} outcome={outcome} issues={issues} />
              <RemarksPanel issues={issues} />
            </Flex>
          </Flex>
        </Page>
      </Box>
      <ImportBar
        entry={entry}
        to={to}
        holds="model"
        proposedName={entry.name.replace(/\.[^.]*$/, '').replace(/^\d+\s+/, '')}
        proposedPrefix="MOD"
        summary={`${describeOutcome(outcome, issues, isCut ? undefined : to.found?.links)}${isCut ? ' among the elements shown' : ''}`}
        wish={{ modelRecipe: recipe, ...(kept && { recipe: kept }) }}
        disabled={outcome.drafts.length === 0}
      />
    </Flex>
  );
}
