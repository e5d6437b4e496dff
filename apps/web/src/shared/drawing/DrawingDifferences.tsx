import { Box, Button, Flex, Slider } from '@chakra-ui/react';
import type { ComparedDrawing } from '@coomb/contract';
import { blendDrawn, type DrawingChange, figure } from '@coomb/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { DrawingCanvas, type DrawingControl } from './DrawingCanvas';
import { Choice } from '../ui/choice';
import { OneLine } from '../ui/one-line';

const WORDS: Record<DrawingChange['sort'], { word: string; colour: string }> = {
  came: { word: 'came', colour: 'moss.fg' },
  went: { word: 'went', colour: 'brick.fg' },
  moved: { word: 'moved', colour: 'fg.muted' },
  changed: { word: 'changed', colour: 'fg' },
};
const NOTHING: { shapes: never[]; routes: never[] } = { shapes: [], routes: [] };
const BLINK_MS = 700;

/** A drawing and its newer version, one over the other: slide or blink between them, and step through what differs. */
export function DrawingDifferences({
  drawings,
  sides = ['as it stands', 'newer version'],
}: {
  drawings: readonly ComparedDrawing[];
  sides?: readonly [string, string];
}) {
  const [id, setId] = useState(drawings[0]!.id);
  const drawing = drawings.find((one) => one.id === id) ?? drawings[0]!;
  return <Differences key={drawing.id} drawing={drawing} drawings={drawings} sides={sides} onChoose={setId} />;
}

interface Props {
  drawing: ComparedDrawing;
  drawings: readonly ComparedDrawing[];
  /** What the earlier one and the later one are called. */
  sides: readonly [string, string];
  onChoose: (id: string) => void;
}

function Differences({ drawing, drawings, sides, onChoose }: Props) {
  const { changes } = drawing;
  const [at, setAt] = useState(1);
  const [blinking, setBlinking] = useState(false);
  const [step, setStep] = useState(0);
  const control = useRef<DrawingControl>(null);
  const before = drawing.before ?? NOTHING;
  const after = drawing.after ?? NOTHING;
  const blend = useMemo(() => blendDrawn(before, after, at), [before, after, at]);
  useEffect(() => {
    if (!blinking) return;
    const timer = setInterval(() => setAt((now) => (now < 0.5 ? 1 : 0)), BLINK_MS);
    return () => clearInterval(timer);
  }, [blinking]);
  const change = changes[step];
  const shapeAt = (one: DrawingChange | undefined) =>
    one?.what === 'shape'
      ? blend.shapeOf.findIndex((shape) => (one.after >= 0 && shape.after === one.after) || (one.before >= 0 && shape.before === one.before))
      : -1;
  const lit = useMemo(
    () =>
      new Set(
        blend.shapeOf.flatMap((shape, index) =>
          changes.some((one) => one.what === 'shape' && (one.after >= 0 ? shape.after === one.after : shape.before === one.before)) ? [index] : [],
        ),
      ),
    [blend, changes],
  );
  const counts = useMemo(() => {
    const words = new Map<number, string>();
    blend.shapeOf.forEach((shape, index) => {
      const own = changes.find((one) => one.what === 'shape' && (one.after >= 0 ? shape.after === one.after : shape.before === one.before));
      if (own) words.set(index, WORDS[own.sort].word);
    });
    return words;
  }, [blend, changes]);
  const go = (next: number) => {
    if (!changes[next]) return;
    setStep(next);
    setBlinking(false);
    const one = changes[next];
    setAt(one.sort === 'went' ? 0 : 1);
  };
  const selected = shapeAt(change);
  useEffect(() => {
    if (selected >= 0) control.current?.reveal(selected);
  }, [selected]);
  return (
    <Flex flex="1" minH="0" borderTopWidth="1px">
      <Flex direction="column" w="300px" flexShrink={0} borderRightWidth="1px" bg="bg.panel">
        <Box px="3" py="2" borderBottomWidth="1px">
          <Choice
            label="Drawing"
            width="100%"
            value={drawing.id}
            options={drawings.map((one) => ({
              value: one.id,
              label: `${one.name || 'Unnamed drawing'} (${one.before ? (one.after ? one.changes.length : 'went') : 'came'})`,
            }))}
            onChange={onChoose}
          />
        </Box>
        <Box flex="1" minH="0" overflow="auto" role="list" aria-label="Differences of the drawing">
          {changes.map((one, index) => (
            <Flex
              asChild
              key={`${one.what} ${one.before} ${one.after}`}
              w="100%"
              gap="2"
              px="3"
              py="1"
              align="center"
              textAlign="left"
              bg={index === step ? 'moss.subtle' : undefined}
              _hover={{ bg: 'bg.subtle' }}
            >
              <button type="button" role="listitem" aria-current={index === step} onClick={() => go(index)}>
                <Box w="64px" flexShrink={0} color={WORDS[one.sort].colour}>
                  {WORDS[one.sort].word}
                </Box>
                <OneLine flex="1" text={one.name} />
                {one.what === 'line' && (
                  <Box color="fg.muted" fontSize="12px">
                    line
                  </Box>
                )}
              </button>
            </Flex>
          ))}
        </Box>
      </Flex>
      <Flex direction="column" flex="1" minW="0">
        <Flex px="4" py="1.5" gap="3" align="center" borderBottomWidth="1px" fontSize="13px">
          <Button size="2xs" variant="outline" disabled={step <= 0} onClick={() => go(step - 1)}>
            Before
          </Button>
          <Box color="fg.muted" fontVariantNumeric="tabular-nums">
            {changes.length === 0 ? 'nothing differs but its name' : `${figure(step + 1)} of ${figure(changes.length)}`}
          </Box>
          <Button size="2xs" variant="outline" disabled={step + 1 >= changes.length} onClick={() => go(step + 1)}>
            Next
          </Button>
          <Box ml="4" color={at < 0.5 ? 'fg' : 'fg.muted'} fontWeight={at < 0.5 ? '600' : '400'}>
            {sides[0]}
          </Box>
          <Slider.Root
            w="180px"
            size="sm"
            min={0}
            max={100}
            value={[Math.round(at * 100)]}
            aria-label={['Between the version that stands here and the newer one']}
            onValueChange={({ value }) => {
              setBlinking(false);
              setAt((value[0] ?? 0) / 100);
            }}
          >
            <Slider.Control>
              <Slider.Track>
                <Slider.Range />
              </Slider.Track>
              <Slider.Thumbs />
            </Slider.Control>
          </Slider.Root>
          <Box color={at >= 0.5 ? 'fg' : 'fg.muted'} fontWeight={at >= 0.5 ? '600' : '400'}>
            {sides[1]}
          </Box>
          <Button size="2xs" variant={blinking ? 'solid' : 'outline'} aria-pressed={blinking} onClick={() => setBlinking(!blinking)}>
            Blink
          </Button>
        </Flex>
        <Box flex="1" minH="0">
          <DrawingCanvas
            control={control}
            steady
            shapes={blend.shapes}
            routes={blend.routes}
            label={drawing.name}
            marks={{ counts, lit }}
            selected={selected}
            onSelect={(shape) => {
              const own = blend.shapeOf[shape];
              const found = own
                ? changes.findIndex((one) => one.what === 'shape' && (one.after >= 0 ? one.after === own.after : one.before === own.before))
                : -1;
              if (found >= 0) setStep(found);
            }}
            describe={(shape) => `${blend.shapes[shape]!.name}${counts.has(shape) ? `, ${counts.get(shape)}` : ''}`}
          />
        </Box>
      </Flex>
    </Flex>
  );
}
