import { Box, Button, Flex } from '@chakra-ui/react';
import type { orderStructure, ReplyOf } from '@coomb/contract';
import { counted, figure } from '@coomb/core';
import { Figures } from './Figures';
import { feedbackIn, type Structure } from './things';

interface Props {
  structure: Structure;
  found: ReplyOf<typeof orderStructure>;
  onCell: (from: number, to: number) => void;
}

/** What an order came to: how much feedback is left and how much must be, the cycles, and which dependencies break each. */
export function OrderPane({ structure, found, onCell }: Props) {
  const { things, edges } = structure;
  const isProven = found.weight <= found.bound;
  const isWeighed = edges.weight.some((one) => one !== 1);
  const today = feedbackIn(structure, [...things.keys()]);
  const name = (thing: number) => things[thing]!.title;
  return (
    <>
      <Figures
        figures={[
          {
            label: isWeighed ? 'Weight above the diagonal' : 'Marks above the diagonal',
            before: figure(today),
            now: figure(found.weight),
            title: 'Dependencies on what stands after: in the order of the outline, and in this one',
          },
          {
            label: isProven ? `Proven: no order has ${isWeighed ? 'less' : 'fewer'}` : 'Any order has at least',
            now: figure(found.bound),
            title: isProven ? 'The solver proved it' : 'What the solver proved within its time; a better order may exist. Give it more time.',
          },
          { label: 'Cycles', now: figure(found.blocks.length) },
          { label: 'Things in cycles', now: figure(found.blocks.reduce((sum, { size }) => sum + size, 0)) },
          { label: 'Took', now: `${found.seconds < 1 ? found.seconds.toFixed(2) : found.seconds.toFixed(1)} s` },
        ]}
      />
      {found.blocks.length === 0 && (
        <Box fontSize="13px" color="fg.muted" mt="2">
          Nothing depends on itself in a circle: every thing stands after what it depends on.
        </Box>
      )}
      {found.blocks
        .toSorted((a, b) => b.size - a.size || a.start - b.start)
        .map(({ start, size, weight, bound, feedback }) => (
          <Box key={start} mt="3" fontSize="13px">
            <Box fontWeight="600">A cycle of {counted(size, 'thing')}</Box>
            <Box color="fg.muted">
              Without {counted(feedback.length, 'dependency', 'dependencies')}
              {isWeighed && `, which ${feedback.length === 1 ? 'weighs' : 'weigh'} ${figure(weight)},`} it is none
              {weight > bound
                ? `; at least ${isWeighed ? `a weight of ${figure(bound)}` : figure(bound)} must go`
                : isWeighed
                  ? ', and none that weigh less would do'
                  : ', and with fewer gone it still is'}
              :
            </Box>
            {feedback
              .toSorted((a, b) => edges.weight[a]! - edges.weight[b]!)
              .slice(0, 30)
              .map((edge) => {
                const [from, to] = [edges.from[edge]!, edges.to[edge]!];
                return (
                  <Flex asChild key={edge} w="100%" textAlign="left" gap="1.5" px="1" py="0.5" borderRadius="l1" _hover={{ bg: 'bg.subtle' }}>
                    <button
                      type="button"
                      onClick={() => onCell(from, to)}
                      title={`${things[from]!.name} ${things[from]!.title} depends on ${things[to]!.name} ${things[to]!.title}`}
                    >
                      <Box flex="1" minW="0" truncate title={`${name(from)} → ${name(to)}`}>
                        {name(from)} → {name(to)}
                      </Box>
                      <Box color="fg.muted" fontVariantNumeric="tabular-nums">
                        {figure(edges.weight[edge]!)}
                      </Box>
                    </button>
                  </Flex>
                );
              })}
            {feedback.length > 30 && <Box color="fg.muted">and {figure(feedback.length - 30)} more</Box>}
          </Box>
        ))}
    </>
  );
}

export function CellPane({
  structure,
  from,
  to,
  phrases,
  referenceOf,
  titleOf,
  onOpen,
}: {
  structure: Structure;
  from: number;
  to: number;
  phrases: readonly string[];
  referenceOf: (row: number) => string;
  titleOf: (row: number) => string;
  onOpen: (reference: string) => void;
}) {
  const entries = structure.between(from, to);
  if (entries.length === 0)
    return (
      <Box fontSize="13px" color="fg.muted">
        No dependency.
      </Box>
    );
  return (
    <Box fontSize="13px">
      {entries.slice(0, 60).map((entry) => (
        <Box key={`${entry.from} ${entry.to} ${entry.mark}`} py="0.5">
          {[entry.from, entry.to].map((row, end) => (
            <span key={row}>
              {end === 1 && (
                <Box as="span" color="fg.muted">
                  {' '}
                  {phrases[entry.mark]}{' '}
                </Box>
              )}
              <Button
                size="2xs"
                variant="plain"
                px="0"
                h="auto"
                fontFamily="mono"
                color="moss.fg"
                title={titleOf(row)}
                onClick={() => onOpen(referenceOf(row))}
              >
                {referenceOf(row)}
              </Button>
            </span>
          ))}
          {entry.suspect && (
            <Box as="span" color="fg.warning">
              {' '}
              suspect
            </Box>
          )}
        </Box>
      ))}
      {entries.length > 60 && <Box color="fg.muted">and {figure(entries.length - 60)} more</Box>}
    </Box>
  );
}
