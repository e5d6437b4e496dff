import { Box, Button, Flex, Input, Textarea } from '@chakra-ui/react';
import type { CoverageState } from '@coomb/core';
import { useState } from 'react';
import { useKept } from '../../shared/drafts/use-kept';
import { Reference } from '../../shared/ui/reference';
import { coverageLooks, Glyph } from '../../shared/ui/states';
import { type Sheet, useExplanation, useWaive, useWithdrawWaiver } from './queries';

/** Coverage rules of an item, each with its state, why, and a waiver where it is not met. */
export function Coverage({ project, sheet }: { project: string; sheet: Sheet }) {
  return sheet.coverage.map((rule) => <CoverageEntry key={rule.rule} project={project} sheet={sheet} rule={rule.rule} label={rule.label} state={rule.state} />);
}

function CoverageEntry({ project, sheet, rule, label, state }: { project: string; sheet: Sheet; rule: string; label: string; state: CoverageState }) {
  const [open, setOpen] = useState(false);
  const { glyph, label: word, colour } = coverageLooks[state];
  const waiver = sheet.waivers.find((one) => one.rule === rule && one.active);
  const takeBack = useWithdrawWaiver(project);
  return (
    <Box borderTopWidth="1px" py="1">
      <Flex align="center" gap="2">
        <Box boxSize="14px" borderRadius="3px" bg={colour} color="bg.panel" display="grid" placeItems="center">
          <Glyph path={glyph} />
        </Box>
        <Box flex="1">
          {label}:{' '}
          <Box as="span" color={state === 'notMet' ? 'brick.fg' : 'fg.muted'}>
            {word.toLowerCase()}
          </Box>
        </Box>
        <Button size="2xs" variant="ghost" onClick={() => setOpen(!open)} aria-expanded={open}>
          Why?
        </Button>
      </Flex>
      {waiver && (
        <Box bg="bg.subtle" p="2" fontSize="13px" my="1">
          {waiver.person} waived this{waiver.until && ` until ${waiver.until}`}: “{waiver.reason}”{' '}
          <Button size="2xs" variant="outline" onClick={() => takeBack.mutate(waiver.id)}>
            Take back
          </Button>
        </Box>
      )}
      {open && <Why project={project} item={sheet.id} rule={rule} waivable={state === 'notMet' || state === 'suspect'} />}
    </Box>
  );
}

function Why({ project, item, rule, waivable }: { project: string; item: string; rule: string; waivable: boolean }) {
  const explanation = useExplanation(project, rule, item, true).data;
  if (!explanation) return null;
  return (
    <Box bg="bg.subtle" p="2" fontSize="13px" my="1">
      <Box mb="1.5">{explanation.sentence}</Box>
      {explanation.usages.map((usage) => (
        <Box key={usage.says} mb="1.5">
          <Flex gap="1.5" align="baseline" wrap="wrap">
            <Box fontWeight="600">{usage.says}</Box>
            <Box color={usage.state === 'notMet' ? 'brick.fg' : 'fg.muted'}>{coverageLooks[usage.state].label.toLowerCase()}</Box>
          </Flex>
          <Paths paths={usage.paths} />
        </Box>
      ))}
      {explanation.usages.length === 0 && <Paths paths={explanation.paths} />}
      {explanation.paths.length === 0 && (
        <Box>
          <Box color="fg.muted">Looked for {explanation.looksFor}.</Box>
          {explanation.ends.length > 0 ? (
            <Box mt="1">
              The search ended at{' '}
              {explanation.ends.slice(0, 6).map((end) => (
                <Reference key={end.id} reference={end.reference} mx="1" />
              ))}
            </Box>
          ) : (
            <Box mt="1">No such link starts here.</Box>
          )}
        </Box>
      )}
      {waivable && <WaiverForm project={project} item={item} rule={rule} />}
    </Box>
  );
}

function Paths({
  paths,
}: {
  paths: { suspect: boolean; steps: { phrase: string; item: { id: string; reference: string; title: string }; usage: string | null }[] }[];
}) {
  return paths.map((path, index) => (
    <Flex key={index} wrap="wrap" gap="1.5" align="baseline" py="0.5">
      {path.steps.map((step) => (
        <Flex key={step.item.id} gap="1.5" align="baseline">
          <Box color="fg.muted">{step.phrase}</Box>
          <Reference reference={step.item.reference} />
          <Box dir="auto">{step.item.title}</Box>
          {step.usage && (
            <Box color="heather.fg" fontSize="12px">
              only as {step.usage}
            </Box>
          )}
        </Flex>
      ))}
      {path.suspect && <Box color="fg.warning">(suspect)</Box>}
    </Flex>
  ));
}

function WaiverForm({ project, item, rule }: { project: string; item: string; rule: string }) {
  const waive = useWaive(project);
  const [reason, setReason, dropReason] = useKept(project, `waiver ${item} ${rule}`);
  const [open, setOpen] = useState(reason !== '');
  const [until, setUntil] = useState('');
  if (!open)
    return (
      <Button mt="2" size="2xs" variant="outline" onClick={() => setOpen(true)}>
        Accept this gap…
      </Button>
    );
  return (
    <Box mt="2">
      <Textarea
        size="xs"
        rows={2}
        aria-label="Reason for the waiver"
        placeholder="Why the gap is accepted, and by whom"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        bg="bg.panel"
      />
      <Flex gap="2" mt="1.5" align="center">
        <Box color="fg.muted">until</Box>
        <Input size="2xs" type="date" w="130px" aria-label="Waived until" value={until} onChange={(event) => setUntil(event.target.value)} bg="bg.panel" />
        <Button
          size="2xs"
          disabled={reason.trim().length < 5}
          loading={waive.isPending}
          onClick={() => waive.mutate({ item, rule, reason, until: until || null }, { onSuccess: dropReason })}
        >
          Accept the gap
        </Button>
        <Button
          size="2xs"
          variant="ghost"
          onClick={() => {
            dropReason();
            setOpen(false);
          }}
        >
          Leave
        </Button>
      </Flex>
    </Box>
  );
}
