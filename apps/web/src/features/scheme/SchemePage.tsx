import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import type { SchemeEdit } from '@coomb/contract';
import { assembleScheme, checkScheme, counted, type SchemePart } from '@coomb/core';
import { useMemo, useRef, useState } from 'react';
import { z } from 'zod';
import { useAddress } from '../../shared/address';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { notifyError } from '../../shared/ui/notices';
import { Page } from '../../shared/ui/page';
import { Panes } from '../../shared/ui/panes';
import { useRoom } from '../../shared/ui/use-room';
import { useReadiness } from '../section/queries';
import { useKindCounts } from './kind-counts';
import { KeepBar } from './KeepBar';
import { PartPanel } from './PartPanel';
import { type Comparison, loadSchemeFile, useCompareScheme, useScheme } from './queries';
import { Retired } from './Retired';
import { RuleSentences } from './RuleSentences';
import { applyDraft, changeParts, nameOf, newPart, renameOption } from './scheme-draft';
import { readSchemeFile, saveSchemeFile } from './scheme-file';
import { SchemeComparison } from './SchemeComparison';
import { Strata } from './Strata';
import { useSchemeDraft } from './use-scheme-draft';

const address = z.object({ part: z.string().default('') });

/** What the project is made of, and what must hold: drawn, said, and changed. */
export function SchemePage() {
  const project = useProject();
  const stored = useScheme(project.id);
  if (stored.error) return <ErrorNote error={stored.error} retry={() => void stored.refetch()} />;
  if (!stored.data) return <Loading what="the scheme" />;
  return <SchemeDesk parts={stored.data.parts} />;
}

function SchemeDesk({ parts: stored }: { parts: SchemeEdit[] }) {
  const project = useProject();
  const [{ part: chosen }, setAddress] = useAddress(address);
  const [draft, setDraft, drop] = useSchemeDraft(project.id);
  const readiness = useReadiness(project.id);
  const counts = useKindCounts();
  const [compared, setCompared] = useState<{ name: string; comparison: Comparison }>();
  const compare = useCompareScheme(project.id);
  const input = useRef<HTMLInputElement>(null);
  const room = useRoom();
  const parts = useMemo(() => applyDraft(stored, draft), [stored, draft]);
  const scheme = useMemo(() => assembleScheme(parts as SchemePart[]), [parts]);
  const issues = useMemo(() => checkScheme(parts as SchemePart[]), [parts]);
  const changed = useMemo(() => new Set(draft.edits.map(nameOf)), [draft]);
  const part = parts.find((one) => nameOf(one) === chosen);
  const choose = (name: string) => {
    setCompared(undefined);
    setAddress({ part: name === chosen ? '' : name }, { replace: false });
  };
  const change = (more: readonly SchemeEdit[]) => setDraft((before) => changeParts(stored, before, more));
  const add = (made: SchemeEdit) => {
    change([made]);
    setCompared(undefined);
    setAddress({ part: nameOf(made) }, { replace: false });
  };
  const layerHere = part?.sort === 'layer' ? part.key : part?.sort === 'kind' ? part.body.layer : (scheme.layers.at(-1)?.id ?? '');
  const takeFile = async (file: File) => {
    try {
      const scheme = await readSchemeFile(file);
      setCompared({ name: file.name, comparison: await compare.mutateAsync(scheme) });
    } catch (error) {
      notifyError(error);
    }
  };
  const actions = (
    <>
      <Button size="xs" variant="outline" onClick={() => add(newPart(parts, 'layer', 'layer', { label: '' }))}>
        New layer
      </Button>
      <Button size="xs" variant="outline" onClick={() => add(newPart(parts, 'kind', 'kind', { label: '', plural: '', layer: layerHere }))}>
        New kind
      </Button>
      <Button
        size="xs"
        variant="outline"
        onClick={() => {
          const from = part?.sort === 'kind' ? [part.key] : [];
          add(newPart(parts, 'linkKind', 'link', { phrase: '', reverse: '', fromKinds: from, toKinds: [], upstream: 'to' }));
        }}
      >
        New link
      </Button>
      <Button
        size="xs"
        variant="outline"
        onClick={() => add(newPart(parts, 'rule', 'rule', { label: '', of: { kinds: [] }, along: [], steps: 1, atLeast: 1, reach: { kinds: [] } }))}
      >
        New rule
      </Button>
      <Button size="xs" variant="ghost" onClick={() => loadSchemeFile(project.id).then(saveSchemeFile, notifyError)}>
        Save as a file
      </Button>
      <Button size="xs" variant="ghost" loading={compare.isPending} onClick={() => input.current?.click()}>
        Compare with a file…
      </Button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="Scheme file"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void takeFile(file);
        }}
      />
    </>
  );
  const ground = (
    <Box h="100%" overflow="auto" tabIndex={0} role="region" aria-label="The scheme">
      <Strata scheme={scheme} counts={counts} chosen={chosen} onChoose={choose} changed={changed} />
      <Heading as="h2" fontSize="14px" fontWeight="600" px="3" pt="4" pb="1.5">
        What must hold
      </Heading>
      <RuleSentences scheme={scheme} readiness={readiness.data} chosen={chosen} onChoose={choose} changed={changed} />
      <Retired parts={parts} onChoose={choose} onBack={(back) => change([back])} />
    </Box>
  );
  const side = (
    <Flex direction="column" h="100%" minH="0" bg="bg">
      <Box flex="1" minH="0" overflow="auto" tabIndex={0} role="region" aria-label="The chosen part">
        {compared ? (
          <SchemeComparison
            name={compared.name}
            comparison={compared.comparison}
            onLeave={() => setCompared(undefined)}
            onTake={(edits) => {
              change(edits);
              setCompared(undefined);
            }}
          />
        ) : part ? (
          <PartPanel
            key={chosen}
            part={part}
            {...{ parts, scheme, issues, change }}
            collections={project.collections}
            rename={(field, from, to) => setDraft((before) => renameOption(stored, before, field, from, to))}
            onLeave={() => setAddress({ part: '' })}
          />
        ) : (
          <Guide />
        )}
      </Box>
      <KeepBar
        project={project.id}
        draft={draft}
        issues={issues}
        parts={parts}
        onAnswer={(effect, choice) => setDraft((before) => ({ ...before, answers: { ...before.answers, [effect]: choice } }))}
        onChoose={choose}
        onDone={drop}
        onDrop={drop}
      />
    </Flex>
  );
  return (
    <Page
      lead={`${counted(scheme.layers.length, 'layer')}, ${counted(scheme.kinds.filter((kind) => !kind.retired).length, 'kind')}, ${counted(scheme.rules.length, 'rule')}`}
      actions={actions}
      fill
    >
      <Panes
        id="scheme"
        above={room.narrow}
        panes={[
          { id: 'ground', size: 64, least: 200, content: ground },
          { id: 'part', size: 36, least: 200, content: side },
        ]}
      />
    </Page>
  );
}

function Guide() {
  return (
    <Box px="5" py="5" color="fg.muted" fontSize="14px" maxW="30rem">
      <Box fontFamily="serif" fontSize="16px" color="fg" mb="2">
        The ground that the project stands on.
      </Box>
      <Box mb="2">
        Layers lie on one another, from what is wanted to what shows that it was met. Kinds of items lie in them; links run through them like shafts.
      </Box>
      <Box>
        Change several things together: before anything is kept you see here what it would do to the items and links that are there. One undo takes all of it
        back.
      </Box>
    </Box>
  );
}
