import { carries } from '../../shared/marks/drag-items';
import { RichText } from '../../shared/ui/rich-text';
import { Box, Flex, IconButton } from '@chakra-ui/react';
import type { ComparedRow, Item, OutlineReply } from '@coomb/contract';
import { getKind, verificationStates } from '@coomb/core';
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, Check, ListCollapse, PanelRight, Pencil, Plus, Trash2 } from 'lucide-react';
import { memo } from 'react';
import { Link } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { useItemAddress } from '../../shared/ui/reference';
import { Words } from '../../shared/ui/words';
import { StateMark } from '../../shared/ui/states';
import { FieldText } from '../item-sheet/FieldEditor';
import { ItemEditor, type Settled, type Split } from '../item-sheet/ItemEditor';
import { useStrength } from '../../shared/lens/lit';
import type { Written } from '../item-sheet/written';
import type { MoveWish } from './find-move';

/** What can be done with a row; the same object for all of them, so that scrolling draws only what is new. */
export interface RowActions {
  activate: (id: string) => void;
  /** Chooses a row or lets it go; as a range, all from the marked row to it. */
  choose: (id: string, isRange: boolean) => void;
  edit: (id: string) => void;
  store: (id: string, written: Written, revision: number, settled?: Settled) => Promise<unknown>;
  done: () => void;
  /** Writes a new item below the one that was edited. */
  next: (id: string) => void;
  split: (id: string, parts: Split) => Promise<unknown>;
  /** Takes the item that follows into this one. */
  join: (id: string) => void;
  add: (id: string) => void;
  move: (wish: MoveWish) => void;
  withdraw: (id: string) => void;
}

interface Props {
  outline: OutlineReply;
  row: number;
  item: Item | undefined;
  /** Its number where it is a step of a use case. */
  number: string;
  depth: number;
  active: boolean;
  chosen: boolean;
  editing: boolean;
  actions: RowActions;
  /** What became of it since the moment that it is compared with. */
  mark?: ComparedRow | undefined;
}

const headingSizes = ['24px', '19px', '17px'];

/** One item as read: reference and state in the left margin, text in the middle, links and fields in the right margin. */
export const ReadingRow = memo(function ReadingRow({ outline, row, number, item, depth, active, chosen, editing, actions, mark }: Props) {
  // What came is all new, and reads as it does; what says the same in another form too.
  const changed = mark?.did === 'came' ? [] : (mark?.parts ?? []).filter(({ words }) => words.some(({ type }) => type !== 'same'));
  const wordsOf = (part: string) => changed.find((one) => one.part === part)?.words;
  const [titleWords, textWords] = [wordsOf('Title'), wordsOf('Text')];
  const project = useProject();
  const itemAddress = useItemAddress();
  const isHeading = outline.heading[row] === 1;
  const kind = project.scheme.kinds[outline.kind[row]!]!;
  const reference = outline.reference[row]!;
  const id = outline.id[row]!;
  const strengthOf = useStrength();
  return (
    <Flex
      opacity={strengthOf(id)}
      direction={{ base: 'column', md: 'row' }}
      gap={{ base: '0.5', md: '5' }}
      px={{ base: '3', md: '5' }}
      pt={isHeading ? '5' : '2.5'}
      pb="2.5"
      borderLeftWidth="3px"
      borderColor={active ? 'moss.solid' : 'transparent'}
      bg={chosen ? 'moss.subtle' : active && !editing ? 'bg.subtle' : undefined}
      onMouseDown={(event) => {
        // A range of rows is no range of words.
        if (event.shiftKey && !editing) event.preventDefault();
      }}
      onClick={(event) => {
        if (!editing && (event.ctrlKey || event.metaKey || event.shiftKey)) actions.choose(id, event.shiftKey);
        else actions.activate(id);
      }}
      onDoubleClick={editing ? undefined : () => actions.edit(id)}
      role="article"
      aria-current={active || undefined}
      data-chosen={chosen || undefined}
      data-item-row
      aria-label={`${reference} ${outline.title[row]}`}
      position="relative"
    >
      <Flex
        direction={{ base: 'row', md: 'column' }}
        w={{ base: '100%', md: '110px' }}
        flexShrink={0}
        gap={{ base: '3', md: '0' }}
        align={{ base: 'baseline', md: 'flex-end' }}
        textAlign={{ base: 'left', md: 'right' }}
        pt={{ base: '0', md: isHeading ? '2' : '0.5' }}
      >
        {chosen && (
          <Box color="moss.fg" position={{ base: 'static', md: 'absolute' }} left="5">
            <Check size={14} aria-label="chosen" />
          </Box>
        )}
        {mark && (
          <Box fontSize="12px" fontWeight="600" color={mark.did === 'came' ? 'moss.fg' : mark.did === 'moved' ? 'heather.fg' : 'fg.warning'}>
            {mark.did}
          </Box>
        )}
        {number && (
          <Box fontFamily="serif" fontSize="15px" color="fg.muted" title="Number of the step">
            {number}
          </Box>
        )}
        {outline.clause[row] && (
          <Box fontFamily="serif" fontSize={isHeading ? '15px' : '13px'} color="fg.muted" title="Number of the clause in its source">
            {outline.clause[row]}
          </Box>
        )}
        {!isHeading && (
          <>
            <Box asChild fontFamily="mono" fontSize="12.5px" color="moss.fg" _hover={{ textDecoration: 'underline' }}>
              <Link to={itemAddress(reference)} {...carries(reference)}>
                {reference}
              </Link>
            </Box>
            {verificationStates[outline.state[row]!] !== 'notApplicable' && (
              <Box fontSize="12px" color="fg.muted">
                <StateMark state={verificationStates[outline.state[row]!]!} flexDirection="row-reverse" />
              </Box>
            )}
          </>
        )}
      </Flex>
      <Box flex="1" minW="0" w={{ base: '100%', md: 'auto' }} maxW="620px">
        {editing && item ? (
          <ItemEditor
            project={project.id}
            item={item}
            draftId={item.id}
            path={`items/${item.reference}`}
            kind={kind}
            onStore={(written, revision, settled) => actions.store(item.id, written, revision, settled)}
            onDone={actions.done}
            onNext={() => actions.next(item.id)}
            onSplit={isHeading ? undefined : (parts) => actions.split(item.id, parts)}
          />
        ) : (
          <>
            {(titleWords || !(item && isOpeningWords(outline.title[row]!, item.html))) && (
              <Box
                dir="auto"
                overflowWrap="anywhere"
                fontFamily="serif"
                fontWeight="600"
                fontSize={isHeading ? headingSizes[Math.min(depth, 2)] : '15.5px'}
                lineHeight="1.3"
              >
                {titleWords ? <Words words={titleWords} /> : outline.title[row]}
              </Box>
            )}
            {textWords && (
              <Box fontFamily="serif" fontSize="15.5px" lineHeight="1.55" mt="0.5">
                <Words words={textWords} whole />
              </Box>
            )}
            {item?.html && !textWords && <RichText className="rich" fontFamily="serif" fontSize="15.5px" lineHeight="1.55" mt="0.5" html={item.html} />}
            {!item && <Box h="24px" bg="bg.muted" w="70%" mt="1" />}
          </>
        )}
      </Box>
      <Box w={{ base: '100%', md: '150px' }} flexShrink={0} fontSize="12px" color="fg.muted" pt="0.5">
        {changed
          .filter(({ part }) => part !== 'Title' && part !== 'Text')
          .map(({ part, words }) => (
            <Box key={part} lineHeight="1.3">
              {part} <Words words={words} />
            </Box>
          ))}
        {!isHeading && (
          <>
            <Box>
              {outline.up[row]} up · {outline.down[row]} down
              {outline.suspect[row]! > 0 && (
                <Box as="span" color="fg.warning">
                  {' '}
                  · {outline.suspect[row]} suspect
                </Box>
              )}
            </Box>
            {item &&
              getKind(project.scheme, item.kind)
                .fields.filter((field) => item.fields[field.id] && field.type !== 'rich' && String(item.fields[field.id]).length < 40)
                .slice(0, 3)
                .map((field) => (
                  <Box key={field.id} lineClamp={2} lineHeight="1.3">
                    {field.label}{' '}
                    <Box as="span" color="fg">
                      <FieldText field={field} value={item.fields[field.id]} />
                    </Box>
                  </Box>
                ))}
          </>
        )}
      </Box>
      {active && !editing && (
        <Flex position="absolute" right="8px" top="-12px" bg="bg.panel" borderWidth="1px" boxShadow="xs" onClick={(event) => event.stopPropagation()}>
          <Tool label={chosen ? 'Let go (Space)' : 'Choose (Space)'} icon={Check} run={() => actions.choose(id, false)} />
          <Tool label="Edit (Enter)" icon={Pencil} run={() => actions.edit(id)} />
          <Tool label="Add an item after this one (A)" icon={Plus} run={() => actions.add(id)} />
          <Tool label="Join the next one to it (J)" icon={ListCollapse} run={() => actions.join(id)} />
          <Tool label="Move up (Alt ↑)" icon={ArrowUp} run={() => actions.move('up')} />
          <Tool label="Move down (Alt ↓)" icon={ArrowDown} run={() => actions.move('down')} />
          <Tool label="One level out (Alt ←)" icon={ArrowLeft} run={() => actions.move('out')} />
          <Tool label="One level in (Alt →)" icon={ArrowRight} run={() => actions.move('in')} />
          <Tool label="Withdraw (Delete)" icon={Trash2} run={() => actions.withdraw(id)} />
          <IconButton asChild aria-label="Open the sheet (O)" title="Open the sheet (O)" size="2xs" variant="ghost">
            <Link to={itemAddress(reference)}>
              <PanelRight size={12} />
            </Link>
          </IconButton>
        </Flex>
      )}
    </Flex>
  );
});

function Tool({ label, icon: Icon, run }: { label: string; icon: typeof Pencil; run: () => void }) {
  return (
    <IconButton aria-label={label} title={label} size="2xs" variant="ghost" onClick={run}>
      <Icon size={12} />
    </IconButton>
  );
}

/** A title that is only the first words of the text says nothing that the text does not. */
function isOpeningWords(title: string, html: string): boolean {
  const words = (text: string) =>
    text
      .replace(/<[^>]*>/g, ' ')
      .replace(/&quot;/g, '"')
      .replace(/&amp;/g, '&')
      .replace(/\s+/g, ' ')
      .trim();
  return html !== '' && words(html.slice(0, title.length * 3 + 200)).startsWith(words(title.replace(/…$/, '')));
}
