import { Box, Flex } from '@chakra-ui/react';
import type { TrayEntry } from '@coomb/contract';
import type { RecipeOutcome } from '@coomb/core';
import { useProject } from '../../../shared/live/project-queries';
import { Page } from '../../../shared/ui/page';
import { ImportBar } from './ImportBar';
import { OutcomeList } from './OutcomeList';
import { describeOutcome } from './outcome-words';
import { RemarksPanel } from './RemarksPanel';
import { useImportTarget } from './use-import-target';

interface Props {
  entry: TrayEntry;
  content: Extract<TrayEntry['content'], { type: 'model' }>;
}

/** A model file: its elements as an outline, counted by kind; what is unknown is named. */
export function ModelGather({ entry, content }: Props) {
  const { scheme } = useProject();
  const outcome = content.outcome as RecipeOutcome;
  const to = useImportTarget(entry, {});
  const issues = [...entry.issues, ...outcome.issues, ...(to.found?.issues ?? [])];
  const kinds = scheme.kinds
    .map((kind) => ({ ...kind, count: outcome.drafts.filter((draft) => draft.kind === kind.id).length }))
    .filter((kind) => kind.count > 0);
  const links = scheme.linkKinds
    .map((kind) => ({ ...kind, count: outcome.links.filter((link) => link.linkKind === kind.id).length }))
    .filter((kind) => kind.count > 0);
  return (
    <Flex direction="column" h="100%">
      <Box flex="1" minH="0">
        <Page
          title={entry.name}
          lead={`${entry.label}${content.exporter ? `, written by ${content.exporter}` : ''}. Identifiers are kept. Nothing is stored yet.`}
          fill
        >
          <Flex h="100%" borderTopWidth="1px">
            <Box w="300px" flexShrink={0} overflow="auto" bg="bg.panel" borderRightWidth="1px" px="4" py="3">
              <Box fontWeight="600">Elements</Box>
              {kinds.map((kind) => (
                <Line key={kind.id} label={kind.plural} count={kind.count} />
              ))}
              <Box fontWeight="600" mt="4">
                Links
              </Box>
              {links.map((kind) => (
                <Line key={kind.id} label={kind.phrase} count={kind.count} />
              ))}
              <Box fontWeight="600" mt="4">
                Drawings
              </Box>
              {content.drawings.length === 0 && <Box color="fg.muted">None in this file</Box>}
              {content.drawings.map((drawing) => (
                <Line key={drawing.name} label={drawing.name} count={`${drawing.shapes} shapes`} />
              ))}
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
        summary={describeOutcome(outcome, issues, to.found?.links)}
        wish={{}}
        disabled={outcome.drafts.length === 0}
      />
    </Flex>
  );
}

function Line({ label, count }: { label: string; count: number | string }) {
  return (
    <Flex py="0.5" borderTopWidth="1px" gap="2">
      <Box flex="1">{label}</Box>
      <Box color="fg.muted" fontVariantNumeric="tabular-nums">
        {count}
      </Box>
    </Flex>
  );
}
