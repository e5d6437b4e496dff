import { type ColourKey, type Condition, findOffer, readyRegister, type Scheme } from '@coomb/core';

/** Where what an entry colours is listed, below the project: items as a register, links in the list of all; nothing where no list asks for the same. */
export function addressOfEntry(scheme: Scheme, { about, shown, ranges, entries }: ColourKey, at: number): string | undefined {
  const { value } = entries[at]!;
  if (about === 'links') {
    const kind = shown.sort === 'linkKind' ? scheme.linkKinds.find(({ phrase }) => phrase.toLowerCase() === value.toLowerCase()) : undefined;
    if (kind) return `link/all?kind=${encodeURIComponent(kind.id)}`;
    return shown.sort === 'linkStanding' && value === 'suspect' ? 'link/all?state=suspect' : undefined;
  }
  if (!findOffer(scheme, shown)) return undefined;
  const condition = (test: Condition['test'], ...values: string[]): Condition => ({ way: [], of: 'some', shown, test, values });
  const before = ranges ? entries[at - 1]?.value : undefined;
  // An entry that stands earlier has what fits both: such lists are those of values.
  const conditions = ranges
    ? [...(before ? [condition('above', before)] : []), ...(value === '' ? (before ? [] : [condition('given')]) : [condition('atMost', value)])]
    : [value === '' ? condition('missing') : condition('is', value)];
  return `shape/register?what=${encodeURIComponent(JSON.stringify({ ...readyRegister(scheme, undefined), conditions }))}`;
}
