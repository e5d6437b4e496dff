import { Box, Flex, IconButton } from '@chakra-ui/react';
import type { Item, OutlineReply } from '@coomb/contract';
import { getKind, verificationStates } from '@coomb/core';
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, PanelRight, Pencil, Plus, Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { useItemAddress } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import { FieldText } from '../item-sheet/FieldEditor';
import { ItemEditor } from '../item-sheet/ItemEditor';
import type { MoveWish } from './find-move';

interface Props {
  outline: OutlineReply;
  row: number;
  item: Item | undefined;
  depth: number;
  active: boolean;
  editing: boolean;
  onActivate: () => void;
  onEdit: () => void;
  onDone: () => void;
  onAdd: () => void;
  onMove: (wish: MoveWish) => void;
  onWithdraw: () => void;
}

const headingSizes = ['24px', '19px', '17px'];

/** One item as read: reference and state in the left margin, text in the middle, links and fields in the right margin. */
export function ReadingRow({ outline, row, item, depth, active, editing, ...on }: Props) {
  const project = useProject();
  const itemAddress = useItemAddress();
  const isHeading = outline.heading[row] === 1;
  const kind = project.scheme.kinds[outline.kind[row]!]!;
  const reference = outline.reference[row]!;
  return (
    <Flex
      gap="5"
      px="5"
      pt={isHeading ? '5' : '2.5'}
      pb="2.5"
      borderLeftWidth="3px"
      borderColor={active ? 'moss.solid' : 'transparent'}
      bg={active && !editing ? 'bg.subtle' : undefined}
      onClick={on.onActivate}
      onDoubleClick={editing ? undefined : on.onEdit}
      role="article"
      aria-label={`${reference} ${outline.title[row]}`}
      position="relative"
    >
      <Box w="110px" flexShrink={0} textAlign="right" pt={isHeading ? '2' : '0.5'}>
        {!isHeading && (
          <>
            <Box asChild fontFamily="mono" fontSize="12.5px" color="moss.fg" _hover={{ textDecoration: 'underline' }}>
              <Link to={itemAddress(reference)}>{reference}</Link>
            </Box>
            {verificationStates[outline.state[row]!] !== 'notApplicable' && (
              <Box fontSize="12px" color="fg.muted">
                <StateMark state={verificationStates[outline.state[row]!]!} flexDirection="row-reverse" />
              </Box>
            )}
          </>
        )}
      </Box>
      <Box flex="1" minW="0" maxW="620px">
        {editing && item ? (
          <ItemEditor project={project.id} item={item} kind={kind} onDone={on.onDone} />
        ) : (
          <>
            <Box fontFamily="serif" fontWeight="600" fontSize={isHeading ? headingSizes[Math.min(depth, 2)] : '15.5px'} lineHeight="1.3">
              {outline.title[row]}
            </Box>
            {item?.html && (
              <Box className="rich" fontFamily="serif" fontSize="15.5px" lineHeight="1.55" mt="0.5" dangerouslySetInnerHTML={{ __html: item.html }} />
            )}
            {!item && <Box h="24px" bg="bg.muted" w="70%" mt="1" />}
          </>
        )}
      </Box>
      <Box w="150px" flexShrink={0} fontSize="12px" color="fg.muted" pt="0.5">
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
                  <Box key={field.id} truncate title={field.label}>
                    <FieldText field={field} value={item.fields[field.id]} />
                  </Box>
                ))}
          </>
        )}
      </Box>
      {active && !editing && (
        <Flex position="absolute" right="8px" top="-12px" bg="bg.panel" borderWidth="1px" boxShadow="xs" onClick={(event) => event.stopPropagation()}>
          <Tool label="Edit (Enter)" icon={Pencil} run={on.onEdit} />
          <Tool label="Add an item after this one (A)" icon={Plus} run={on.onAdd} />
          <Tool label="Move up (Alt ↑)" icon={ArrowUp} run={() => on.onMove('up')} />
          <Tool label="Move down (Alt ↓)" icon={ArrowDown} run={() => on.onMove('down')} />
          <Tool label="One level out (Alt ←)" icon={ArrowLeft} run={() => on.onMove('out')} />
          <Tool label="One level in (Alt →)" icon={ArrowRight} run={() => on.onMove('in')} />
          <Tool label="Withdraw (Delete)" icon={Trash2} run={on.onWithdraw} />
          <IconButton asChild aria-label="Open the sheet (O)" title="Open the sheet (O)" size="2xs" variant="ghost">
            <Link to={itemAddress(reference)}>
              <PanelRight size={12} />
            </Link>
          </IconButton>
        </Flex>
      )}
    </Flex>
  );
}

function Tool({ label, icon: Icon, run }: { label: string; icon: typeof Pencil; run: () => void }) {
  return (
    <IconButton aria-label={label} title={label} size="2xs" variant="ghost" onClick={run}>
      <Icon size={12} />
    </IconButton>
  );
}
