import { RichText } from '../../../shared/ui/rich-text';
import { Box, Button, Flex } from '@chakra-ui/react';
import type { ComparedEntry } from '@coomb/contract';
import { buildWordDiff, findKind, type Side } from '@coomb/core';
import type { Project } from '../../../shared/live/project-queries';
import { Words } from '../../../shared/ui/words';
import { type Choices, choose, partsOf, sideOf } from './choices';
import { sortWords } from './sort-words';
import { Matched, NewItem } from './PairWith';

interface Props {
  project: Project;
  entry: ComparedEntry;
  /** Items that the newer version lacks. */
  gone: readonly ComparedEntry[];
  choices: Choices;
  onChoose: (choices: Choices) => void;
  onPair: (entry: ComparedEntry, item: string | null) => void;
}

/** One item on both sides, field by field: what stands here, what the newer version says, and which is taken. */
export function EntryDetail({ project, entry, gone, choices, onChoose, onPair }: Props) {
  const parts = partsOf(entry);
  const set = (part: string) => (side: Side) => onChoose(choose(choices, entry, part, side));
  const side = (part: string) => sideOf(entry, part, choices);
  return (
    <Box flex="1" minW="0" overflow="auto" px="5" py="3">
      <Flex gap="3" align="baseline" mb="2" wrap="wrap">
        <Box fontFamily="mono" color="moss.fg">
          {entry.mine?.reference ?? entry.theirs?.key ?? 'next free'}
        </Box>
        <Box fontWeight="600">{sortWords[entry.sort]}</Box>
        {entry.theirs && <Box color="fg.muted">at {entry.theirs.place} of the new file</Box>}
      </Flex>
      {entry.match && <Matched project={project} entry={entry} gone={gone} onPair={onPair} />}
      {entry.sort === 'new' && <NewItem project={project} entry={entry} gone={gone} onPair={onPair} />}
      {entry.sort === 'removed' && entry.mine && (
        <Part label="The newer version does not have it" side={side('presence')} onChoose={set('presence')} mineWord="Keep it" theirsWord="Withdraw it">
          <Box dir="auto" fontFamily="serif" fontWeight="600">
            {entry.mine.title}
          </Box>
          <RichText className="rich" fontFamily="serif" html={entry.mine.html} />
          <Box color="fg.muted" fontSize="13px" mt="1">
            {entry.mine.links} {entry.mine.links === 1 ? 'link' : 'links'}.{' '}
            {entry.conflict
              ? `It was edited here since: ${entry.fields.map((field) => field.label.toLowerCase()).join(', ')}.`
              : 'History and links stay with it.'}
          </Box>
        </Part>
      )}
      {entry.sort === 'new' && entry.theirs && (
        <Part label="Only in the newer version" side={side('presence')} onChoose={set('presence')} mineWord="Leave it out" theirsWord="Add it">
          <Box dir="auto" fontFamily="serif" fontWeight="600">
            {entry.theirs.title}
          </Box>
          <RichText className="rich" fontFamily="serif" html={entry.theirs.html} />
        </Part>
      )}
      {entry.sort === 'returned' && (
        <Part
          label="It was withdrawn here, and the newer version changed it"
          side={side('presence')}
          onChoose={set('presence')}
          mineWord="Leave it withdrawn"
          theirsWord="Bring it back"
        />
      )}
      {entry.fields.map((field) => (
        <FieldPart
          key={field.field}
          project={project}
          field={field}
          choosable={parts.includes(field.field)}
          side={side(field.field)}
          onChoose={set(field.field)}
        />
      ))}
      {entry.place && (
        <Part label="Place" conflict={entry.place.conflict} side={side('place')} onChoose={set('place')} mineWord="Leave it here" theirsWord="Move it">
          <Box>
            {entry.place.from === entry.place.to ? (
              <>
                Another place below <b>{entry.place.to}</b>
              </>
            ) : (
              <>
                From below <b>{entry.place.from}</b> to below <b>{entry.place.to}</b>
              </>
            )}
          </Box>
        </Part>
      )}
      {parts.includes('links') && (
        <Part label="Links" side={side('links')} onChoose={set('links')} mineWord="Leave the links" theirsWord="Follow the file">
          {entry.linksAdded.map((link) => (
            <Box key={link} color="moss.fg">
              + {link}
            </Box>
          ))}
          {entry.linksRemoved.map((link) => (
            <Box key={link} color="brick.fg">
              − {link}
            </Box>
          ))}
        </Part>
      )}
      {entry.mine && entry.mine.links > 0 && parts.some((part) => (part === 'title' || part === 'text') && side(part) === 'theirs') && (
        <Box color="fg.warning" fontSize="13px" mt="2">
          Its meaning changes: {entry.mine.links} {entry.mine.links === 1 ? 'link becomes' : 'links become'} suspect until confirmed.
        </Box>
      )}
    </Box>
  );
}

interface PartProps {
  label: string;
  conflict?: boolean;
  side: Side;
  onChoose: (side: Side) => void;
  mineWord?: string;
  theirsWord?: string;
  children?: React.ReactNode;
}

function Part({ label, conflict = false, side, onChoose, mineWord = 'Keep what stands here', theirsWord = 'Take the newer', children }: PartProps) {
  return (
    <Box borderTopWidth="1px" py="2.5">
      <Flex gap="2" align="center" mb="1.5">
        <Box fontWeight="600" color={conflict ? 'brick.fg' : undefined} flex="1">
          {label}
          {conflict && ': changed on both sides'}
        </Box>
        <Button size="2xs" variant={side === 'mine' ? 'solid' : 'outline'} aria-pressed={side === 'mine'} onClick={() => onChoose('mine')}>
          {mineWord}
        </Button>
        <Button size="2xs" variant={side === 'theirs' ? 'solid' : 'outline'} aria-pressed={side === 'theirs'} onClick={() => onChoose('theirs')}>
          {theirsWord}
        </Button>
      </Flex>
      {children}
    </Box>
  );
}

type Field = ComparedEntry['fields'][number];

function FieldPart({
  project,
  field,
  choosable,
  side,
  onChoose,
}: {
  project: Project;
  field: Field;
  choosable: boolean;
  side: Side;
  onChoose: (side: Side) => void;
}) {
  const show = (value: Field['mine'] | undefined) => asWords(project, field.field, value);
  if (!choosable)
    return (
      <Box borderTopWidth="1px" py="2" color="fg.muted" fontSize="13px">
        {field.label}: {field.verdict === 'both' ? 'changed to the same on both sides' : 'changed here only; it stays'}
      </Box>
    );
  const conflict = field.verdict === 'conflict';
  return (
    <Part label={field.label} conflict={conflict} side={side} onChoose={onChoose}>
      {conflict ? (
        <Flex gap="4">
          <Version
            title="Stands here"
            words={field.base === undefined ? undefined : buildWordDiff(show(field.base), show(field.mine))}
            plain={show(field.mine)}
          />
          <Version
            title="Newer version"
            words={field.base === undefined ? undefined : buildWordDiff(show(field.base), show(field.theirs))}
            plain={show(field.theirs)}
          />
        </Flex>
      ) : (
        <Words words={buildWordDiff(show(field.mine), show(field.theirs))} />
      )}
    </Part>
  );
}

/** One side of a clash, with what it changed since both were the same. */
function Version({ title, words, plain }: { title: string; words: ReturnType<typeof buildWordDiff> | undefined; plain: string }) {
  return (
    <Box flex="1" minW="0">
      <Box color="fg.muted" fontSize="12.5px" mb="0.5">
        {title}
      </Box>
      {words ? <Words words={words} /> : <Box fontFamily="serif">{plain || '–'}</Box>}
    </Box>
  );
}

/** A value as people read it. */
function asWords(project: Project, name: string, value: Field['mine'] | undefined): string {
  if (value === null || value === undefined) return '';
  if (name === 'kind') return findKind(project.scheme, String(value))?.label ?? String(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.join(', ');
  const isRich = project.scheme.kinds.some((kind) => kind.fields.some((field) => name === `field:${field.id}` && field.type === 'rich'));
  return name === 'text' || isRich ? plainOf(String(value)) : String(value);
}

/** Words of rich text, a line for each block, with lists and cells told apart. */
function plainOf(html: string): string {
  const page = new DOMParser().parseFromString(html.replace(/<(\/p|br|\/li|\/tr)[^>]*>/g, '$&\n').replace(/<\/t[dh]>/g, '$&\t'), 'text/html');
  for (const image of page.querySelectorAll('img')) image.replaceWith(`[picture: ${image.alt}]`);
  return page.body.textContent?.trim() ?? '';
}
