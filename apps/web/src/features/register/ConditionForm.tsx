import { Box, Button, Checkbox, Flex, Input, Popover, Portal } from '@chakra-ui/react';
import { type Condition, findOffer, phraseAt, quantities, sayTest, shows, textTests, type TestSort, type WayStep } from '@coomb/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';

const quantityWords = { some: 'at least one', every: 'every one', no: 'none' };

/** What may be asked of a value, by its type. */
function testsOf(type: string | undefined, hasValues: boolean): TestSort[] {
  if (type === 'number') return ['is', 'atLeast', 'atMost', 'above', 'given', 'missing'];
  if (type === 'moment') return ['atLeast', 'atMost', 'above', 'is', 'given', 'missing'];
  if (type === 'yesNo' || hasValues) return ['is', 'isNot', 'given', 'missing'];
  return ['says', 'saysNot', 'is', 'isNot', 'given', 'missing'];
}

/** Composes a condition by choosing: of the item itself or along links, what of it, and which values pass. */
export function ConditionForm({ kinds, onAdd }: { kinds: readonly string[]; onAdd: (condition: Condition) => void }) {
  const { scheme } = useProject();
  const [open, setOpen] = useState(false);
  const [way, setWay] = useState<WayStep[]>([]);
  const [of, setOf] = useState<Condition['of']>('some');
  const [shown, setShown] = useState('title\u0001');
  const [test, setTest] = useState<TestSort>();
  const [values, setValues] = useState<string[]>([]);
  const ends = way.reduce<readonly string[]>((at, { linkKind, end }) => {
    const kind = scheme.linkKinds.find(({ id }) => id === linkKind);
    return kind ? (end === 'from' ? kind.toKinds : kind.fromKinds) : at;
  }, kinds);
  const phrases = scheme.linkKinds
    .filter(({ retired }) => !retired)
    .flatMap((kind) =>
      (['from', 'to'] as const).flatMap((end) => {
        const own = end === 'from' ? kind.fromKinds : kind.toKinds;
        return ends.length > 0 && !ends.some((one) => own.includes(one)) ? [] : [{ value: `${end} ${kind.id}`, label: phraseAt(kind, end) }];
      }),
    );
  const offers = shows.flatMap((show) =>
    show.offers(scheme).flatMap(({ of: which, label }) => {
      const isOf =
        show.sort !== 'field' || ends.length === 0 || scheme.kinds.some(({ id, fields }) => ends.includes(id) && fields.some((field) => field.id === which));
      return isOf ? [{ value: `${show.sort}\u0001${which ?? ''}`, label }] : [];
    }),
  );
  const [sort, which] = shown.split('\u0001') as [string, string];
  const asked = { sort, ...(which && { of: which }) };
  const offer = findOffer(scheme, asked);
  const possible: readonly TestSort[] = sort === 'text' ? textTests : testsOf(offer?.type, offer?.values !== undefined);
  const chosen = test && possible.includes(test) ? test : possible[0]!;
  const needsValue = chosen !== 'given' && chosen !== 'missing';
  const isReady = !needsValue || values.some((value) => value.trim() !== '');
  const choose = (value: string) => {
    setShown(value);
    setValues([]);
  };
  const add = () => {
    if (!isReady) return;
    onAdd({ way, of, shown: asked, test: chosen, values: needsValue ? values.map((value) => value.trim()).filter(Boolean) : [] });
    setOpen(false);
    setWay([]);
    setValues([]);
  };
  return (
    <Popover.Root lazyMount unmountOnExit open={open} onOpenChange={(details) => setOpen(details.open)} positioning={{ placement: 'bottom-start' }}>
      <Popover.Trigger asChild>
        <Button size="2xs" variant="outline">
          <Plus size={12} /> Condition
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content w="340px" borderWidth="1px" aria-label="A further condition">
            <Popover.Body p="3" display="flex" flexDirection="column" gap="2" fontSize="13px">
              <Choice
                label="Whose values"
                value={way.length === 0 ? '' : 'way'}
                width="100%"
                options={[
                  { value: '', label: 'Of the item itself' },
                  { value: 'way', label: way.length === 0 ? 'Of what it is linked with…' : 'Of what it is linked with' },
                ]}
                onChange={(value) => setWay(value && phrases[0] ? [stepOf(phrases[0].value)] : [])}
              />
              {way.map((step, at) => (
                <Choice
                  key={at}
                  label={`Step ${at + 1}`}
                  value={`${step.end} ${step.linkKind}`}
                  width="100%"
                  options={
                    at === way.length - 1
                      ? [{ value: `${step.end} ${step.linkKind}`, label: sayStep(scheme, step) }, ...stepOptions(scheme, at === 0 ? kinds : [])].filter(isFirst)
                      : [{ value: `${step.end} ${step.linkKind}`, label: sayStep(scheme, step) }]
                  }
                  onChange={(value) => setWay([...way.slice(0, at), stepOf(value)])}
                />
              ))}
              {way.length > 0 && (
                <Flex gap="2" align="center">
                  <Button
                    size="2xs"
                    variant="ghost"
                    disabled={way.length >= 4 || phrases.length === 0}
                    onClick={() => setWay([...way, stepOf(phrases[0]!.value)])}
                  >
                    and on from there
                  </Button>
                  <Box flex="1" />
                  <Choice
                    label="How many of them"
                    value={of}
                    options={quantities.map((value) => ({ value, label: quantityWords[value] }))}
                    onChange={(value) => setOf(value as 'some')}
                  />
                </Flex>
              )}
              <Choice label="What of it" value={shown} width="100%" options={offers} onChange={choose} />
              <Choice
                label="Passes when it"
                value={chosen}
                width="100%"
                options={possible.map((value) => ({ value, label: sayTest(value) }))}
                onChange={(value) => setTest(value as TestSort)}
              />
              {needsValue &&
                (offer?.values || offer?.type === 'yesNo' ? (
                  <Flex direction="column" gap="1" maxH="180px" overflowY="auto">
                    {(offer.values ?? ['yes', 'no']).map((value) => (
                      <Checkbox.Root
                        key={value}
                        size="sm"
                        checked={values.includes(value)}
                        onCheckedChange={({ checked }) => setValues(checked ? [...values, value] : values.filter((one) => one !== value))}
                      >
                        <Checkbox.HiddenInput />
                        <Checkbox.Control />
                        <Checkbox.Label fontWeight="400">{value}</Checkbox.Label>
                      </Checkbox.Root>
                    ))}
                  </Flex>
                ) : (
                  <Input
                    size="xs"
                    aria-label="Value"
                    type={offer?.type === 'moment' ? 'date' : 'text'}
                    inputMode={offer?.type === 'number' ? 'decimal' : 'text'}
                    value={values[0] ?? ''}
                    onChange={(event) => setValues([event.target.value])}
                    onKeyDown={(event) => event.key === 'Enter' && add()}
                  />
                ))}
              <Button size="xs" disabled={!isReady} onClick={add}>
                Add the condition
              </Button>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

type Scheme = ReturnType<typeof useProject>['scheme'];

function stepOf(value: string): WayStep {
  const at = value.indexOf(' ');
  return { end: value.slice(0, at) as 'from', linkKind: value.slice(at + 1) };
}

const sayStep = (scheme: Scheme, { linkKind, end }: WayStep) => {
  const kind = scheme.linkKinds.find(({ id }) => id === linkKind);
  return kind ? phraseAt(kind, end) : linkKind;
};

function stepOptions({ linkKinds }: Scheme, kinds: readonly string[]) {
  return linkKinds.flatMap((kind) =>
    (['from', 'to'] as const).flatMap((end) => {
      const own = end === 'from' ? kind.fromKinds : kind.toKinds;
      return kind.retired || (kinds.length > 0 && !kinds.some((one) => own.includes(one))) ? [] : [{ value: `${end} ${kind.id}`, label: phraseAt(kind, end) }];
    }),
  );
}

const isFirst = (one: { value: string }, at: number, all: readonly { value: string }[]) => all.findIndex(({ value }) => value === one.value) === at;
