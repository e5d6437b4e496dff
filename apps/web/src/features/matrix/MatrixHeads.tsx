import { carries } from '../../shared/marks/drag-items';
import { useFills } from '../../shared/colour-key/fills';
import { Filled } from '../../shared/ui/reference';
import { useStrength } from '../../shared/lens/lit';
import { Box } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { endOfLine, type FoldedAxis } from '@coomb/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo, useMemo, useRef } from 'react';
import type { MatrixSide } from './matrix-sides';
import { cellSize } from './paint-matrix';
import { type ScrollPlace, useScrolled } from './scroll-place';

interface HeadsProps {
  outline: OutlineReply;
  side: MatrixSide;
  axis: FoldedAxis;
  totalOf: (line: number) => number;
  place: ScrollPlace;
  active: number;
  folded: ReadonlySet<string>;
  onFold: (id: string) => void;
  onOpen: (reference: string) => void;
}

/** Lines in sight, in the places of the document that they have: a head that goes out of sight is used again for one that comes. */
function useLinesIn(axis: FoldedAxis, scroll: number, extent: number): { line: number; slot: number }[] {
  const slots = useRef(1);
  const first = Math.max(0, Math.floor(scroll / cellSize) - 2);
  const last = Math.min(axis.lines.length - 1, Math.ceil((scroll + extent) / cellSize) + 2);
  slots.current = Math.max(slots.current, last - first + 1);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => ({ line: first + index, slot: (first + index) % slots.current })).sort(
    (a, b) => a.slot - b.slot,
  );
}

type Read = Pick<HeadsProps, 'outline' | 'side' | 'axis' | 'folded' | 'totalOf'>;
type Told = ReturnType<typeof readLine>;

/** What each line says, read once for as long as nothing of it changes. */
function useTold({ outline, side, axis, folded, totalOf }: Read): (line: number) => Told {
  return useMemo(() => {
    const told = new Map<number, Told>();
    return (line) => {
      let found = told.get(line);
      if (!found) told.set(line, (found = readLine({ outline, side, axis, folded, totalOf }, line)));
      return found;
    };
  }, [outline, side, axis, folded, totalOf]);
}

function readLine({ outline, side, axis, folded, totalOf }: Read, line: number) {
  const index = axis.lines[line]!;
  const row = side.rows[index]!;
  const group = side.groups.get(index);
  let depth = 0;
  for (let up = side.parent[index]!; up >= 0; up = side.parent[up]!) depth++;
  const use = side.uses.get(index);
  const own = lineId(outline, side, index);
  const isFolded = !use && folded.has(own);
  const hasChildren = isFolded || side.parent[index + 1] === index;
  return {
    row,
    own,
    id: use ? use.path.join(' ') : own,
    reference: group === undefined ? outline.reference[row]! : '',
    use: use !== undefined,
    /** Its links are counted line by line, or it is such a line. */
    hasUses: use !== undefined || (side.firstUse.has(row) && !isFolded),
    title: use ? use.says : (group ?? outline.title[row]!),
    linked: side.linked[index]!,
    total: totalOf(line),
    heading: group !== undefined || outline.heading[row] === 1,
    isGroup: group !== undefined,
    /** Of what is folded: how many items, and how many of them are linked. */
    share: isFolded ? shareOf(outline, side, index, endOfLine(axis, line)) : undefined,
    depth,
    isFolded,
    hasChildren,
  };
}

/** What a line is known by when it is folded. */
export const lineId = (outline: OutlineReply, side: MatrixSide, line: number): string =>
  side.rows[line]! < 0 ? `group:${side.groups.get(line)}` : outline.id[side.rows[line]!]!;

function shareOf(outline: OutlineReply, side: MatrixSide, from: number, end: number): { items: number; linked: number } {
  let [items, linked] = [0, 0];
  for (let line = from; line < end; line++) {
    const row = side.rows[line]!;
    if (row < 0 || outline.heading[row] || side.uses.has(line)) continue;
    items++;
    if (side.linked[line]! > 0) linked++;
  }
  return { items, linked };
}

const sayShare = ({ items, linked }: { items: number; linked: number }) => `${linked} of ${items} linked`;

/** Styled once for all heads: hundreds of lines pass by while scrolling, and each must cost next to nothing. */
const headStyles = {
  '& .lines': { height: '100%' },
  '& .line': { position: 'absolute', display: 'flex', alignItems: 'center' },
  '& .line.upright': { height: '100%', flexDirection: 'column', justifyContent: 'flex-end', paddingBottom: '4px' },
  '& .upright .name': { writingMode: 'vertical-rl', transform: 'rotate(180deg)' },
  '& .line.is-heading': { background: 'bg.muted' },
  '& .line.is-active': { background: 'moss.subtle' },
  '& .name': {
    flex: '1',
    minWidth: '0',
    minHeight: '0',
    textAlign: 'left',
    whiteSpace: 'nowrap',
    overflow: 'hidden',
    textOverflow: 'ellipsis',
    fontFamily: 'serif',
    cursor: 'pointer',
  },
  '& .name:hover': { textDecoration: 'underline' },
  '& .is-heading .name': { fontWeight: '600' },
  '& .reference': { fontFamily: 'mono', fontSize: '11.5px', color: 'moss.fg' },
  '& .fold': { width: '14px', height: '14px', flexShrink: '0', display: 'grid', placeItems: 'center', cursor: 'pointer' },
  '& .use': { color: 'heather.fg', fontSize: '11px', fontFamily: 'body', whiteSpace: 'nowrap' },
  '& .note': { color: 'fg.muted', fontSize: '11px' },
  '& .count': { color: 'fg.muted', fontSize: '11.5px', fontVariantNumeric: 'tabular-nums' },
  '& .count.is-gap': { color: 'brick.fg' },
} as const;

const classOf = (active: boolean, heading: boolean) => `line${heading ? ' is-heading' : ''}${active ? ' is-active' : ''}`;

/** Row names; parents fold and unfold, names open their item. */
export function RowHeads({ width, height, ...props }: HeadsProps & { width: number; height: number }) {
  const strengthOf = useStrength();
  const told = useTold(props);
  const scroll = useScrolled(props.place, 'top');
  return (
    <Box
      w={`${width}px`}
      flexShrink={0}
      overflow="hidden"
      position="relative"
      borderRightWidth="1px"
      borderTopWidth="1px"
      role="group"
      aria-label="Rows"
      fontSize="12.5px"
      css={headStyles}
    >
      <div className="lines" style={{ transform: `translateY(${-scroll}px)` }}>
        {useLinesIn(props.axis, scroll, height).map(({ line, slot }) => {
          const one = told(line);
          const { onFold, onOpen } = props;
          return <RowHead key={slot} {...{ line, onFold, onOpen }} told={one} strength={strengthOf(one.id)} isActive={line === props.active} />;
        })}
      </div>
    </Box>
  );
}

interface HeadProps extends Pick<HeadsProps, 'onFold' | 'onOpen'> {
  line: number;
  told: Told;
  strength: number | undefined;
  isActive: boolean;
}

const RowHead = memo(function RowHead({ line, told, strength, isActive, onFold, onOpen }: HeadProps) {
  const { own, title, heading, depth, isFolded, hasChildren, share, use, hasUses, linked, total } = told;
  const count = hasUses ? linked : total;
  return (
    <div
      className={classOf(isActive, heading)}
      style={{ opacity: strength, top: line * cellSize, height: cellSize, width: '100%', gap: 4, paddingRight: 8, paddingLeft: 6 + depth * 11 }}
    >
      <Fold visible={hasChildren} folded={isFolded} label={title} onClick={() => onFold(own)} />
      <Name {...{ told, onFold, onOpen }} />
      {use && linked === 0 && <span className="use">not linked here</span>}
      {share && <span className="note">{sayShare(share)}</span>}
      <span className={count ? 'count' : 'count is-gap'}>{heading && !isFolded ? '' : count}</span>
    </div>
  );
});

/** Column names, written upwards. */
export function ColumnHeads({ width, ...props }: HeadsProps & { width: number }) {
  const strengthOf = useStrength();
  const told = useTold(props);
  const scroll = useScrolled(props.place, 'left');
  return (
    <Box flex="1" minW="0" overflow="hidden" position="relative" role="group" aria-label="Columns" fontSize="12px" css={headStyles}>
      <div className="lines" style={{ transform: `translateX(${-scroll}px)` }}>
        {useLinesIn(props.axis, scroll, width).map(({ line, slot }) => {
          const one = told(line);
          const { onFold, onOpen } = props;
          return <ColumnHead key={slot} {...{ line, onFold, onOpen }} told={one} strength={strengthOf(one.id)} isActive={line === props.active} />;
        })}
      </div>
    </Box>
  );
}

const ColumnHead = memo(function ColumnHead({ line, told, strength, isActive, onFold, onOpen }: HeadProps) {
  const { own, title, heading, isFolded, hasChildren } = told;
  return (
    <div className={`upright ${classOf(isActive, heading)}`} style={{ opacity: strength, left: line * cellSize, width: cellSize }}>
      <Name {...{ told, onFold, onOpen }} isUpright />
      <Fold visible={hasChildren} folded={isFolded} label={title} onClick={() => onFold(own)} />
    </div>
  );
});

function Name({ told, isUpright, onFold, onOpen }: Pick<HeadProps, 'told' | 'onFold' | 'onOpen'> & { isUpright?: boolean }) {
  const { own, reference, title, heading, isGroup, share, use } = told;
  return (
    <button
      type="button"
      className="name"
      title={`${reference} ${title}${share ? `: ${sayShare(share)}` : ''}`.trim()}
      onClick={() => (isGroup ? onFold(own) : onOpen(reference))}
      {...(!heading && carries(reference))}
    >
      <LineName {...{ reference, title, heading, isUse: use }} />
      {isUpright && share ? ` (${share.linked}/${share.items})` : ''}
    </button>
  );
}

/** What a line is called: a use within what it is a use of, an item with its reference, a heading or a group by its title. */
function LineName({ reference, title, heading, isUse }: { reference: string; title: string; heading: boolean; isUse: boolean }) {
  const coat = useFills()?.get(reference);
  return (
    <>
      {isUse ? <span className="use">in </span> : !heading && <span className="reference">{coat ? <Filled coat={coat}>{reference}</Filled> : reference} </span>}
      <bdi>{title}</bdi>
    </>
  );
}

function Fold({ visible, folded, label, onClick }: { visible: boolean; folded: boolean; label: string; onClick: () => void }) {
  if (!visible) return <span className="fold" />;
  return (
    <button type="button" className="fold" aria-label={`${folded ? 'Unfold' : 'Fold'} ${label}`} aria-expanded={!folded} onClick={onClick}>
      {folded ? <ChevronRight size={13} /> : <ChevronDown size={13} />}
    </button>
  );
}
