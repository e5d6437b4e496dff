import { Box, Button, Field, Flex, IconButton, Input } from '@chakra-ui/react';
import { type ColourEntry, dashes, findLinkOffer, findOffer, type GlyphName, glyphNames, linkOffers, proposeFills, shows } from '@coomb/core';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { colourBy } from '../../shared/colour-key/key-on';
import { useProject } from '../../shared/live/project-queries';
import { useKeepView } from '../../shared/saved-views/queries';
import { AskDialog } from '../../shared/ui/ask-dialog';
import { Choice } from '../../shared/ui/choice';
import { Filled } from '../../shared/ui/reference';
import { fetchRegister } from './queries';

/** Values that entries are proposed for at most. */
const MOST_PROPOSED = 24;

/** Makes a colour key: what is coloured by, an entry for each value or range, fills that are told apart. */
export function MakeKey() {
  const { id: project, scheme } = useProject();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [of, setOf] = useState('');
  const [entries, setEntries] = useState<ColourEntry[]>([]);
  const keep = useKeepView(project);
  const ofItems = shows
    .filter(({ sort }) => !['text', 'title', 'reference'].includes(sort))
    .flatMap((show) => show.offers(scheme).map(({ of: which, label, type, values }) => ({ value: `${show.sort}\u0001${which ?? ''}`, label, type, values })));
  const ofLinks = linkOffers(scheme).map(({ sort: own, of: which, label, type, values }) => ({ value: `${own}\u0001${which ?? ''}`, label, type, values }));
  const offers = [...ofItems, ...ofLinks];
  const about = ofLinks.some(({ value }) => value === of) ? ('links' as const) : ('items' as const);
  const [sort, which] = of.split('\u0001') as [string, string | undefined];
  const shown = { sort, ...(which && { of: which }) };
  const offer = of ? (about === 'links' ? findLinkOffer(scheme, shown) : findOffer(scheme, shown)) : undefined;
  const ranges = offer?.type === 'number' || offer?.type === 'moment';
  const propose = async (value: string) => {
    setOf(value);
    const [wantedSort, wantedOf] = value.split('\u0001') as [string, string | undefined];
    const wanted = { sort: wantedSort, ...(wantedOf && { of: wantedOf }) };
    const isOfLinks = ofLinks.some((one) => one.value === value);
    const found = isOfLinks ? findLinkOffer(scheme, wanted) : findOffer(scheme, wanted);
    if (!name || offers.some(({ label }) => label === name)) setName(found?.label ?? '');
    let values: readonly string[] = found?.values ?? (found?.type === 'yesNo' ? ['yes', 'no'] : []);
    if (found?.type === 'number' || found?.type === 'moment') values = [''];
    else if (values.length === 0 && !isOfLinks) {
      // What has no values of its own is coloured by those that stand there.
      const column = { id: 'c', way: [], shown: wanted, as: 'list' as const };
      const what = { kinds: [], columns: [column], conditions: [], match: 'all' as const, sort: [], group: ['c'], shape: 'list' as const };
      const { groups } = await fetchRegister(project, { what, where: { collections: [], below: [] } }, 0, 1);
      values = groups.map(({ values: [first] }) => first ?? '').filter(Boolean);
    }
    const fills = proposeFills(Math.min(values.length, MOST_PROPOSED));
    setEntries(fills.map((fill, at) => ({ value: values[at]!, fill })));
  };
  const set = (at: number, change: Partial<ColourEntry>) => setEntries(entries.map((entry, place) => (place === at ? { ...entry, ...change } : entry)));
  const add = () => setEntries([...entries, { value: '', fill: proposeFills(entries.length + 1).at(-1)! }]);
  return (
    <>
      <Button size="2xs" variant="outline" onClick={() => setOpen(true)} title="Colour items or links by what they say, in every view">
        Colour key…
      </Button>
      {open && (
        <AskDialog
          title="Colour items or links"
          wide
          says="By what they say in one of their values, in every view. It is kept for everybody; text stays readable on every fill."
          verb="Keep and colour"
          busy={keep.isPending}
          disabled={!offer || entries.length === 0 || name.trim() === ''}
          onDo={() =>
            keep.mutate(
              { sort: 'colourKey', name: name.trim(), body: { key: JSON.stringify({ about, shown, ranges, entries: ranges ? inOrder(entries) : entries }) } },
              {
                onSuccess: ({ id }) => {
                  colourBy(project, id);
                  setOpen(false);
                },
              },
            )
          }
          onClose={() => setOpen(false)}
        >
          <Choice
            label="Coloured by"
            value={of}
            width="100%"
            options={[{ value: '', label: 'Choose what colours…' }, ...offers]}
            onChange={(value) => value && void propose(value)}
          />
          {offer && (
            <Box maxH="260px" overflowY="auto">
              {entries.map((entry, at) => (
                <Flex key={`${at}`} align="center" gap="2" py="0.5">
                  <input
                    type="color"
                    aria-label={`Fill of ${entry.value || 'the rest'}`}
                    value={entry.fill}
                    onChange={(event) => set(at, { fill: event.target.value })}
                    style={{ width: 30, height: 24, flexShrink: 0 }}
                  />
                  {ranges && <Box whiteSpace="nowrap">up to</Box>}
                  <Input
                    size="2xs"
                    aria-label={`Value ${at + 1}`}
                    type={offer.type === 'moment' ? 'date' : 'text'}
                    placeholder={ranges ? 'all above' : 'nothing said'}
                    value={entry.value}
                    onChange={(event) => set(at, { value: event.target.value })}
                  />
                  <Input
                    size="2xs"
                    aria-label={`Called ${at + 1}`}
                    placeholder="called…"
                    value={entry.label ?? ''}
                    onChange={(event) => set(at, { label: event.target.value || undefined })}
                  />
                  <input
                    type="color"
                    aria-label={`Line of ${entry.value || 'the rest'}`}
                    title="Colour of its line"
                    value={entry.line ?? entry.fill}
                    onChange={(event) => set(at, { line: event.target.value })}
                    style={{ width: 24, height: 24, flexShrink: 0 }}
                  />
                  <Box flexShrink={0} w="8.2rem">
                    <Choice
                      width="100%"
                      label={`Line of entry ${at + 1}`}
                      value={`${entry.dash ?? ''} ${entry.width ?? ''}`}
                      options={[{ value: ' ', label: 'usual line' }, ...lines.map((value) => ({ value, label: sayLine(value) }))]}
                      onChange={(value) => {
                        const [dash, width] = value.split(' ');
                        set(at, { dash: dashes.find((one) => one === dash), width: width ? Number(width) : undefined });
                      }}
                    />
                  </Box>
                  <Box flexShrink={0} w="6.4rem">
                    <Choice
                      width="100%"
                      label={`Sign of entry ${at + 1}`}
                      value={entry.glyph ?? ''}
                      options={[{ value: '', label: 'no sign' }, ...glyphNames.map((value) => ({ value, label: value }))]}
                      onChange={(value) => set(at, { glyph: (value || undefined) as GlyphName | undefined })}
                    />
                  </Box>
                  <Box flexShrink={0} px="1.5" fontSize="12px">
                    <Filled coat={entry}>Aa</Filled>
                  </Box>
                  <IconButton
                    aria-label={`Leave ${entry.value || 'this'} out`}
                    size="2xs"
                    variant="ghost"
                    onClick={() => setEntries(entries.filter((_, place) => place !== at))}
                  >
                    <X size={12} />
                  </IconButton>
                </Flex>
              ))}
              <Button size="2xs" variant="ghost" onClick={add}>
                <Plus size={12} /> Entry
              </Button>
            </Box>
          )}
          <Field.Root>
            <Field.Label fontSize="13px" fontWeight="400" color="fg.muted">
              Name
            </Field.Label>
            <Input size="sm" value={name} maxLength={120} onChange={(event) => setName(event.target.value)} />
          </Field.Root>
        </AskDialog>
      )}
    </>
  );
}

/** Dash and width of the lines that are offered. */
const lines = dashes.flatMap((dash) => [1.5, 3].map((width) => `${dash} ${width}`));
const sayLine = (line: string) => {
  const [dash, width] = line.split(' ');
  return `${dash}, ${width === '3' ? 'wide' : 'thin'}`;
};

/** Bounds from the least on; the one without stands last. */
const inOrder = (entries: readonly ColourEntry[]) =>
  entries.toSorted((a, b) =>
    a.value === '' ? 1 : b.value === '' ? -1 : Number.isNaN(Number(a.value)) ? (a.value < b.value ? -1 : 1) : Number(a.value) - Number(b.value),
  );
