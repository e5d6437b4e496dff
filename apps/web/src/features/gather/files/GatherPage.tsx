import { counted } from '@coomb/core';
import { Box, Button, Flex } from '@chakra-ui/react';
import { format } from 'date-fns';
import { FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useProject } from '../../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../../shared/ui/feedback';
import { Page } from '../../../shared/ui/page';
import { joinModels } from './join-models';
import { IssueLines } from '../tray/IssueLines';
import { TrayList } from '../tray/TrayList';
import { useRuns, useSources, useUpload } from '../queries';
import { OneLine } from '../../../shared/ui/one-line';

export function GatherPage() {
  const project = useProject();
  const sources = useSources(project.id);
  const runs = useRuns(project.id);
  const navigate = useNavigate();
  const upload = useUpload(project.id, ([first, ...others]) => void (first && others.length === 0 && navigate(`/p/${project.id}/gather/${first}`)));
  return (
    <Page>
      <DropPlace busy={upload.isPending} onFiles={(files) => void joinModels(files).then((joined) => upload.mutate(joined))} />
      {upload.error && <ErrorNote error={upload.error} />}
      <TrayList project={project.id} />
      {sources.error && <ErrorNote error={sources.error} retry={() => void sources.refetch()} />}
      {sources.isPending && <Loading what="sources" />}
      {sources.data && inLines(sources.data).map(({ source, older }) => <SourceEntry key={source.id} project={project.id} source={source} older={older} />)}
      {runs.data && runs.data.length > 0 && (
        <Box mt="8">
          <Box fontWeight="600" mb="1">
            Test runs
          </Box>
          {runs.data.map((run) => (
            <RunEntry key={run.id} project={project.id} run={run} />
          ))}
        </Box>
      )}
    </Page>
  );
}

function RunEntry({ project, run }: { project: string; run: NonNullable<ReturnType<typeof useRuns>['data']>[number] }) {
  const { counts } = run;
  const figures = [
    { show: 'passed', count: counts.passed, colour: 'moss.fg' },
    { show: 'failed', count: counts.failed, colour: counts.failed ? 'brick.fg' : 'fg.muted' },
    { show: 'broken', count: counts.broken, colour: counts.broken ? 'brick.fg' : 'fg.muted' },
    { show: 'skipped', count: counts.skipped, colour: 'fg.muted' },
    { show: 'unmatched', count: counts.unmatched, colour: counts.unmatched ? 'fg.warning' : 'fg.muted', words: 'without a test case' },
  ];
  return (
    <Flex columnGap="4" py="1.5" borderTopWidth="1px" wrap="wrap">
      <Box asChild w={{ base: '100%', md: '16em' }} _hover={{ textDecoration: 'underline' }}>
        <Link to={`/p/${project}/gather/runs/${run.id}`}>{run.name}</Link>
      </Box>
      <Box w={{ base: '100%', md: '11em' }} color="fg.muted">
        {format(new Date(run.at), 'd MMM yyyy, HH:mm')}
      </Box>
      {figures.map(({ show, count, colour, words }) => (
        <Box asChild key={show} color={colour} textDecoration="underline" textDecorationColor="border.emphasized" textUnderlineOffset="3px">
          <Link to={`/p/${project}/gather/runs/${run.id}?show=${show}`}>
            {count} {words ?? show}
          </Link>
        </Box>
      ))}
    </Flex>
  );
}

function DropPlace({ busy, onFiles }: { busy: boolean; onFiles: (files: File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  return (
    <Flex
      align="center"
      gap={{ base: '2', md: '4' }}
      wrap={{ base: 'wrap', md: 'nowrap' }}
      borderWidth="2px"
      borderStyle="dashed"
      borderColor={over ? 'moss.solid' : 'border.emphasized'}
      bg={over ? 'moss.subtle' : 'bg.panel'}
      px={{ base: '3', md: '5' }}
      py={{ base: '3', md: '4' }}
      mb="4"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const files = [...event.dataTransfer.files];
        if (files.length) onFiles(files);
      }}
    >
      <FileUp size={26} strokeWidth={1.5} aria-hidden />
      <Box flex={{ base: '1 1 12rem', md: '1' }}>
        <Box fontWeight="600">Drop files here, or choose them</Box>
        <Box color="fg.muted" fontSize="13px">
          Requirements (.docx, .pdf, .md, .html, .xlsx, .csv, .reqif), models (.xmi, .uml, .ecore, .ssd; several that name each other go together), processes
          (.bpmn), decisions (.dmn), test cases (.xlsx, .csv), results (JUnit .xml). You see what it becomes before anything is stored.
        </Box>
      </Box>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label="File to gather"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length) onFiles(files);
        }}
      />
      <Button size="sm" loading={busy} loadingText="Reading…" onClick={() => input.current?.click()}>
        Choose files
      </Button>
    </Flex>
  );
}

type Source = NonNullable<ReturnType<typeof useSources>['data']>[number];

/** Versions of one file stand together, the newest first. */
function inLines(sources: readonly Source[]): { source: Source; older: boolean }[] {
  const lines = [...new Set(sources.map((source) => source.lineage))];
  return lines.flatMap((line) =>
    sources
      .filter((source) => source.lineage === line)
      .reverse()
      .map((source, index) => ({ source, older: index > 0 })),
  );
}

function SourceEntry({ project, source, older }: { project: string; source: Source; older: boolean }) {
  const [open, setOpen] = useState(false);
  const doubtful = source.issues.filter((issue) => issue.severity !== 'note').length;
  return (
    <Box borderTopWidth="1px" py="1.5">
      <Flex columnGap="4" align="baseline" wrap={{ base: 'wrap', md: 'nowrap' }}>
        <Box
          asChild
          flex={{ base: '1 0 100%', md: '1' }}
          pl={older ? '6' : undefined}
          color={older ? 'fg.muted' : undefined}
          _hover={{ textDecoration: 'underline' }}
        >
          <Link to={`/p/${project}/gather/sources/${source.id}`} title="Read it here">
            {source.name}
          </Link>
        </Box>
        <Box color="fg.muted" w={{ md: '8em' }} display={{ base: older || source.items > 0 ? 'block' : 'none', md: 'block' }} textAlign="right">
          {older && 'older version'}
          {source.items > 0 && !older && (
            <Box asChild textDecoration="underline" textDecorationColor="border.emphasized" textUnderlineOffset="3px">
              <Link to={`/p/${project}/check/figure/source:${source.lineage}`}>{counted(source.items, 'item')}</Link>
            </Box>
          )}
        </Box>
        <Box color="fg.muted" w={{ md: '5em' }} textAlign="right">
          {Math.max(1, Math.round(source.size / 1024))} kB
        </Box>
        <OneLine color="fg.muted" w={{ md: '17em' }} text={`${format(new Date(source.importedAt), 'd MMM yyyy, HH:mm')} · ${source.importedBy}`} />
        {source.issues.length === 0 ? (
          <Box w={{ md: '9em' }} px={{ md: '2' }} fontSize="12px" color="fg.muted">
            no remarks
          </Box>
        ) : (
          <Button
            size="2xs"
            variant="ghost"
            w={{ md: '9em' }}
            px={{ base: '0', md: '2' }}
            justifyContent="flex-start"
            color={doubtful ? 'fg.warning' : 'fg.muted'}
            onClick={() => setOpen(!open)}
            aria-expanded={open}
          >
            {source.issues.length === 1 ? '1 remark' : `${source.issues.length} remarks`}
          </Button>
        )}
      </Flex>
      {open && <IssueLines issues={source.issues} />}
    </Box>
  );
}
