import { Box, Flex } from '@chakra-ui/react';
import type { Kind, LinkKind, Scheme } from '@coomb/core';
import { figure } from '@coomb/core';

interface Props {
  scheme: Scheme;
  /** Items of each kind. */
  counts: ReadonlyMap<string, number>;
  chosen: string;
  onChoose: (part: string) => void;
  /** Parts that are changed and not kept: marked. */
  changed: ReadonlySet<string>;
}

const LANE = 30;
const HEAD = 108;

/** The scheme as ground: layers as strata, kinds in them, and each kind of link as a shaft through the strata that it joins. */
export function Strata({ scheme, counts, chosen, onChoose, changed }: Props) {
  const links = scheme.linkKinds.filter((kind) => !kind.retired);
  const shown = links.find((link) => chosen === `linkKind ${link.id}`);
  const lanes = `${links.length * LANE + 50}px`;
  return (
    <Box role="group" aria-label="Layers, kinds and the links between them" overflowX="auto">
      <Box minW={`${420 + links.length * LANE}px`} position="relative">
        <Flex h={`${HEAD}px`} align="flex-end">
          <Box flex="1" pb="1.5" px="3" fontSize="12.5px" color="fg.muted">
            {shown ? (
              <>
                <Dot end="begin" /> may begin here <Dot end="end" /> may end here
              </>
            ) : (
              'Choose a layer, a kind or a link to see and change what it says.'
            )}
          </Box>
          <Box w={lanes} flexShrink={0} position="relative" h="100%">
            {links.map((link, lane) => (
              <LaneHead key={link.id} link={link} lane={lane} chosen={shown === link} changed={changed.has(`linkKind ${link.id}`)} onChoose={onChoose} />
            ))}
          </Box>
        </Flex>
        {scheme.layers.map((layer, depth) => {
          const kinds = scheme.kinds.filter((kind) => kind.layer === layer.id && !kind.retired);
          return (
            <Flex key={layer.id} borderTopWidth="2px" borderColor="border.emphasized" bg={depth % 2 ? 'bg.subtle' : 'bg.panel'} align="stretch" minH="62px">
              <Box
                asChild
                w="128px"
                flexShrink={0}
                px="3"
                py="2"
                textAlign="left"
                fontSize="13px"
                fontWeight="600"
                lineHeight="1.25"
                {...ring(chosen === `layer ${layer.id}`)}
              >
                <button type="button" aria-pressed={chosen === `layer ${layer.id}`} onClick={() => onChoose(`layer ${layer.id}`)}>
                  {layer.label || 'no name'}
                  {changed.has(`layer ${layer.id}`) && <Changed />}
                </button>
              </Box>
              <Flex flex="1" wrap="wrap" gap="1.5" py="2" px="1" align="center" alignContent="center">
                {kinds.map((kind) => (
                  <KindStone
                    key={kind.id}
                    kind={kind}
                    count={counts.get(kind.id) ?? 0}
                    link={shown}
                    chosen={chosen === `kind ${kind.id}`}
                    changed={changed.has(`kind ${kind.id}`)}
                    onChoose={onChoose}
                  />
                ))}
                {kinds.length === 0 && (
                  <Box color="fg.muted" fontSize="12.5px">
                    no kind yet
                  </Box>
                )}
              </Flex>
              <Box w={lanes} flexShrink={0} position="relative" aria-hidden="true">
                {links.map((link, lane) => (
                  <Shaft
                    key={link.id}
                    scheme={scheme}
                    link={link}
                    lane={lane}
                    depth={depth}
                    chosen={shown === link}
                    faint={shown !== undefined && shown !== link}
                  />
                ))}
              </Box>
            </Flex>
          );
        })}
      </Box>
    </Box>
  );
}

function LaneHead({
  link,
  lane,
  chosen,
  changed,
  onChoose,
}: {
  link: LinkKind;
  lane: number;
  chosen: boolean;
  changed: boolean;
  onChoose: (part: string) => void;
}) {
  return (
    <Box
      asChild
      position="absolute"
      bottom="3px"
      left={`${lane * LANE + LANE / 2 - 2}px`}
      transform="rotate(-52deg)"
      transformOrigin="0 100%"
      whiteSpace="nowrap"
      fontSize="13px"
      lineHeight="24px"
      px="1"
      fontWeight={chosen ? '650' : '500'}
      color={chosen ? 'moss.fg' : 'fg'}
      bg={chosen ? 'moss.subtle' : 'transparent'}
      borderRadius="l2"
      _hover={{ color: 'moss.fg' }}
    >
      <button type="button" aria-pressed={chosen} onClick={() => onChoose(`linkKind ${link.id}`)}>
        {link.phrase || 'no phrase'}
        {changed && <Changed />}
      </button>
    </Box>
  );
}

/** The piece of a shaft within one stratum: a hollow ring where links may begin, a filled one where they may end. */
function Shaft({ scheme, link, lane, depth, chosen, faint }: { scheme: Scheme; link: LinkKind; lane: number; depth: number; chosen: boolean; faint: boolean }) {
  const depths = (keys: readonly string[]) =>
    keys.flatMap((key) => {
      const at = scheme.layers.findIndex((layer) => layer.id === scheme.kinds.find((kind) => kind.id === key && !kind.retired)?.layer);
      return at < 0 ? [] : [at];
    });
  const [begins, ends] = [depths(link.fromKinds), depths(link.toKinds)];
  const all = [...begins, ...ends];
  const [top, foot] = [Math.min(...all), Math.max(...all)];
  if (all.length === 0 || depth < top || depth > foot) return null;
  const x = lane * LANE + LANE / 2;
  const colour = `var(--chakra-colors-${chosen ? 'moss-solid' : faint ? 'border-emphasized' : 'fg-subtle'})`;
  const [isBegin, isEnd] = [begins.includes(depth), ends.includes(depth)];
  const y = (which: 'begin' | 'end') => (isBegin && isEnd ? (which === 'end' ? '36%' : '64%') : '50%');
  return (
    <svg style={{ position: 'absolute', left: x - 10, top: -2, width: 20, height: 'calc(100% + 2px)', overflow: 'visible' }} aria-hidden="true">
      <line
        x1="10"
        x2="10"
        y1={depth === top ? (isEnd ? y('end') : y('begin')) : '0'}
        y2={depth === foot ? (isBegin ? y('begin') : y('end')) : '100%'}
        stroke={colour}
        strokeWidth={chosen ? 3 : 1.5}
      />
      {isEnd && <circle cx="10" cy={y('end')} r={chosen ? 6 : 4.5} fill={colour} />}
      {isBegin && <circle cx="10" cy={y('begin')} r={chosen ? 5.5 : 4} fill="var(--chakra-colors-bg-panel)" stroke={colour} strokeWidth={chosen ? 3 : 1.5} />}
    </svg>
  );
}

function KindStone({
  kind,
  count,
  link,
  chosen,
  changed,
  onChoose,
}: {
  kind: Kind;
  count: number;
  link: LinkKind | undefined;
  chosen: boolean;
  changed: boolean;
  onChoose: (part: string) => void;
}) {
  const [begins, ends] = [link?.fromKinds.includes(kind.id) ?? false, link?.toKinds.includes(kind.id) ?? false];
  const faint = link !== undefined && !begins && !ends;
  return (
    <Box
      asChild
      px="2.5"
      py="1"
      borderWidth="1px"
      borderStyle={kind.informative ? 'dashed' : 'solid'}
      borderColor={begins || ends ? 'moss.solid' : 'border.emphasized'}
      borderRadius="14px 10px 15px 9px"
      bg={chosen ? 'moss.muted' : 'bg'}
      opacity={faint ? 0.55 : 1}
      fontSize="13.5px"
      whiteSpace="nowrap"
      {...ring(chosen)}
      _hover={{ borderColor: 'moss.solid' }}
    >
      <button type="button" aria-pressed={chosen} onClick={() => onChoose(`kind ${kind.id}`)}>
        {begins && <Dot end="begin" />}
        {ends && <Dot end="end" />}
        {kind.label || 'no name'}
        <Box as="span" color="fg.muted" fontSize="12px" ml="1.5">
          {count > 0 ? figure(count) : ''}
        </Box>
        {changed && <Changed />}
      </button>
    </Box>
  );
}

function Dot({ end }: { end: 'begin' | 'end' }) {
  return (
    <svg
      width="11"
      height="11"
      viewBox="0 0 11 11"
      style={{ display: 'inline', marginInline: '2px 4px', verticalAlign: '-1px' }}
      role="img"
      aria-label={end === 'begin' ? 'may begin here' : 'may end here'}
    >
      <circle
        cx="5.5"
        cy="5.5"
        r="4"
        fill={end === 'end' ? 'var(--chakra-colors-moss-solid)' : 'none'}
        stroke="var(--chakra-colors-moss-solid)"
        strokeWidth="2"
      />
    </svg>
  );
}

/** A mark of what is changed and not kept. */
export function Changed() {
  return (
    <Box as="span" color="fg.warning" ml="1" title="Changed, not kept yet" aria-label="changed, not kept yet">
      ✎
    </Box>
  );
}

const ring = (chosen: boolean) => (chosen ? { boxShadow: 'inset 0 0 0 2px var(--chakra-colors-moss-solid)' } : {});
