import { carries } from '../../shared/marks/drag-items';
import { useFills } from '../../shared/colour-key/fills';
import { Filled } from '../../shared/ui/reference';
import { useStrength } from '../../shared/lens/lit';
import { Box } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { endOfLine, type FoldedAxis } from '@coomb/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import type { MatrixSide } from './matrix-sides';
import { cellSize } from './paint-matrix';

interface HeadsProps {
  outline: OutlineReply;
  side: MatrixSide;
  axis: FoldedAxis;
  totalOf: (line: number) => number;
  scroll: number;
  active: number;
  folded: ReadonlySet<string>;
  onFold: (id: string) => void;
  onOpen: (reference: string) => void;
}

function linesIn(axis: FoldedAxis, scroll: number, extent: number): number[] {
  const first = Math.max(0, Math.floor(scroll / cellSize) - 2);
  const last = Math.min(axis.lines.length - 1, Math.ceil((scroll + extent) / cellSize) + 2);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => first + index);
}

function readLine({ outline, side, axis, folded }: HeadsProps, line: number) {
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
      <div className="lines" style={{ transform: `translateY(${-props.scroll}px)` }}>
        {linesIn(props.axis, props.scroll, height).map((line) => {
          const { own, id, reference, title, heading, isGroup, depth, isFolded, hasChildren, share, use, hasUses, linked } = readLine(props, line);
          return (
            <div
              key={id}
              className={classOf(line === props.active, heading)}
              style={{
                opacity: strengthOf(id),
                top: line * cellSize,
                height: cellSize,
                width: '100%',
                gap: 4,
                paddingRight: 8,
                paddingLeft: 6 + depth * 11,
              }}
            >
              <Fold visible={hasChildren} folded={isFolded} label={title} onClick={() => props.onFold(own)} />
              <button
                type="button"
                className="name"
                title={`${reference} ${title}${share ? `: ${sayShare(share)}` : ''}`.trim()}
                onClick={() => (isGroup ? props.onFold(own) : props.onOpen(reference))}
                {...(!heading && carries(reference))}
              >
                <LineName {...{ reference, title, heading, isUse: use }} />
              </button>
              {use && linked === 0 && <span className="use">not linked here</span>}
              {share && <span className="note">{sayShare(share)}</span>}
              <span className={(hasUses ? linked : props.totalOf(line)) ? 'count' : 'count is-gap'}>
                {heading && !isFolded ? '' : hasUses ? linked : props.totalOf(line)}
              </span>
            </div>
          );
        })}
      </div>
    </Box>
  );
}

/** Column names, written upwards. */
export function ColumnHeads({ width, ...props }: HeadsProps & { width: number }) {
  const strengthOf = useStrength();
  return (
    <Box flex="1" minW="0" overflow="hidden" position="relative" role="group" aria-label="Columns" fontSize="12px" css={headStyles}>
      <div className="lines" style={{ transform: `translateX(${-props.scroll}px)` }}>
        {linesIn(props.axis, props.scroll, width).map((line) => {
          const { own, id, reference, title, heading, isGroup, isFolded, hasChildren, share, use } = readLine(props, line);
          return (
            <div
              key={id}
              className={classOf(line === props.active, heading)}
              style={{
                opacity: strengthOf(id),
                left: line * cellSize,
                width: cellSize,
                height: '100%',
                flexDirection: 'column',
                justifyContent: 'flex-end',
                paddingBottom: 4,
              }}
            >
              <button
                type="button"
                className="name"
                title={`${reference} ${title}${share ? `: ${sayShare(share)}` : ''}`.trim()}
                style={{ writingMode: 'vertical-rl', transform: 'rotate(180deg)' }}
                onClick={() => (isGroup ? props.onFold(own) : props.onOpen(reference))}
                {...(!heading && carries(reference))}
              >
                <LineName {...{ reference, title, heading, isUse: use }} />
                {share ? ` (${share.linked}/${share.items})` : ''}
              </button>
              <Fold visible={hasChildren} folded={isFolded} label={title} onClick={() => props.onFold(own)} />
            </div>
          );
        })}
      </div>
    </Box>
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
