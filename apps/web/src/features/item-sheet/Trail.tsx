import { Box, Button, Flex, IconButton } from '@chakra-ui/react';
import type { TrailLink } from '@coomb/contract';
import { findLinkKind, isUseWithin } from '@coomb/core';
import { Spline, Unlink } from 'lucide-react';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import { ChangeLinksDialog } from '../linking/ChangeLinksDialog';
import { FieldEditor, FieldText } from './FieldEditor';
import { useConfirmLinks, useEditLink, useLinkDifference, useRemoveLinks } from './queries';
import { Words } from '../../shared/ui/words';
import { OneLine } from '../../shared/ui/one-line';

interface TrailProps {
  project: string;
  title: string;
  empty: string;
  links: TrailLink[];
  /** The use that the item is shown in; links of other uses are not linked here. */
  use?: readonly string[] | undefined;
}

const holdsIn = ({ usagePath }: TrailLink, use: readonly string[]) => usagePath === null || isUseWithin(use, usagePath);

/** Links upstream and downstream of an item, grouped by phrase; suspect ones say what changed and can be confirmed. */
export function Trail({ project, title, empty, links: all, use }: TrailProps) {
  const links = use ? all.filter((link) => holdsIn(link, use)) : all;
  const elsewhere = use ? all.filter((link) => !holdsIn(link, use)) : [];
  const phrases = [...new Set(links.map((link) => link.phrase))];
  return (
    <Box flex="1" minW="0">
      <Box color="fg.muted" fontSize="12.5px" mb="1">
        {title}
      </Box>
      {links.length === 0 && (
        <Box color="fg.subtle" fontSize="13px" fontStyle="italic">
          {empty}
        </Box>
      )}
      {phrases.map((phrase) => (
        <Box key={phrase} mb="2">
          <Box fontSize="12.5px" color="fg.muted">
            {phrase}
          </Box>
          {links
            .filter((link) => link.phrase === phrase)
            .map((link) => (
              <TrailEntry key={link.id} project={project} link={link} />
            ))}
        </Box>
      ))}
      {elsewhere.length > 0 && (
        <Box mb="2" color="fg.muted">
          <Box fontSize="12.5px" color="heather.fg">
            not linked here, but in other uses
          </Box>
          {elsewhere.map((link) => (
            <Flex key={link.id} align="baseline" gap="2" py="0.5" borderTopWidth="1px" borderTopStyle="dashed" fontSize="13px">
              <Box flexShrink={0}>{link.phrase}</Box>
              <Reference reference={link.other.reference} />
              <OneLine flex="1" text={`as ${link.usage}`} />
            </Flex>
          ))}
        </Box>
      )}
    </Box>
  );
}

function TrailEntry({ project, link }: { project: string; link: TrailLink }) {
  const remove = useRemoveLinks(project);
  const [open, setOpen] = useState(false);
  const [changing, setChanging] = useState(false);
  const whole = useProject();
  return (
    <Box borderTopWidth="1px" py="1">
      <Flex align="center" gap="2">
        <StateMark state={link.other.state} bare />
        <Reference reference={link.other.reference} />
        <OneLine flex="1" text={link.other.title} />
        <InUsage link={link} />
        {link.suspect && (
          <Button size="2xs" variant="subtle" color="fg.warning" onClick={() => setOpen(!open)} aria-expanded={open}>
            Suspect
          </Button>
        )}
        <IconButton
          aria-label={`Change the link to ${link.other.reference}`}
          title="Hang it on another item, give it another kind or a field"
          size="2xs"
          variant="ghost"
          onClick={() => setChanging(true)}
        >
          <Spline size={12} />
        </IconButton>
        <IconButton
          aria-label={`Remove the link to ${link.other.reference}`}
          title="Remove this link"
          size="2xs"
          variant="ghost"
          disabled={remove.isPending}
          onClick={() => remove.mutate([link.id])}
        >
          <Unlink size={12} />
        </IconButton>
      </Flex>
      {open && link.suspect && <Suspicion project={project} link={link.id} />}
      <LinkFields project={project} link={link} />
      {changing && (
        <ChangeLinksDialog
          begins="end"
          project={whole}
          links={[link.id]}
          sample={{ kind: link.linkKind }}
          onClose={() => setChanging(false)}
          onDone={() => setChanging(false)}
        />
      )}
    </Box>
  );
}

function Suspicion({ project, link }: { project: string; link: string }) {
  const difference = useLinkDifference(project, link);
  const confirm = useConfirmLinks(project);
  if (!difference.data) return null;
  return (
    <Box bg="bg.subtle" p="2" fontSize="13px">
      {difference.data.ends.map((end) => (
        <Box key={end.item.id} mb="2">
          <Box color="fg.muted">
            {end.item.reference} since {difference.data.confirmedBy} confirmed the link{end.changedBy && `, changed by ${end.changedBy}`}:
          </Box>
          <Words words={end.words} />
        </Box>
      ))}
      <Button size="2xs" loading={confirm.isPending} onClick={() => confirm.mutate([link])}>
        The link still holds
      </Button>
    </Box>
  );
}

/** What the link's own fields say, where its kind has some; a click opens them to be changed. */
function LinkFields({ project, link }: { project: string; link: TrailLink }) {
  const fields = findLinkKind(useProject().scheme, link.linkKind)?.fields ?? [];
  const edit = useEditLink(project);
  const [draft, setDraft] = useState<TrailLink['fields']>();
  if (fields.length === 0) return null;
  if (!draft)
    return (
      <Flex asChild gap="3" pl="6" fontSize="12.5px" wrap="wrap" textAlign="left" color="fg.muted" _hover={{ color: 'moss.fg' }}>
        <button type="button" aria-label={`Change what the link to ${link.other.reference} says`} onClick={() => setDraft(link.fields)}>
          {fields.map((field) => (
            <Box as="span" key={field.id}>
              {field.label}: {link.fields[field.id] === undefined ? '–' : <FieldText field={field} value={link.fields[field.id]} />}
            </Box>
          ))}
        </button>
      </Flex>
    );
  return (
    <Box
      as="form"
      pl="6"
      aria-label={`Link to ${link.other.reference}`}
      onSubmit={(event) => {
        event.preventDefault();
        edit.mutate({ link: link.id, revision: link.revision, fields: draft }, { onSuccess: () => setDraft(undefined) });
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        setDraft(undefined);
      }}
    >
      {fields.map((field) => (
        <Flex key={field.id} gap="2" align="center" fontSize="12.5px" py="0.5">
          <Box w="7rem" color="fg.muted">
            {field.label}
          </Box>
          <Box flex="1">
            <FieldEditor field={field} value={draft[field.id]} onChange={(value) => setDraft({ ...draft, [field.id]: value })} />
          </Box>
        </Flex>
      ))}
      <Flex gap="1" py="1">
        <Button type="submit" size="2xs" loading={edit.isPending}>
          Keep
        </Button>
        <Button size="2xs" variant="ghost" onClick={() => setDraft(undefined)}>
          Leave
        </Button>
      </Flex>
    </Box>
  );
}

/** That a link holds in one usage only, of this item or of the other. */
function InUsage({ link }: { link: TrailLink }) {
  const says = [link.usage && `here as ${link.usage}`, link.otherUsage && `there as ${link.otherUsage}`].filter(Boolean).join('; ');
  if (!says) return null;
  return <OneLine text={`only ${says}`} maxW="45%" fontSize="12px" color="heather.fg" />;
}
