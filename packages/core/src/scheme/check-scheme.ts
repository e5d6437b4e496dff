import { fitsField } from '../fields/fits-field.js';
import { assembleScheme, partsOfSort, type SchemePart, type SchemeSort } from './scheme-part.js';
import { isAllowed } from './scheme.js';

/** What is wrong with a part: an `error` cannot be kept, a `doubt` can. */
export interface SchemeIssue {
  severity: 'error' | 'doubt';
  sort: SchemeSort;
  key: string;
  message: string;
}

const MOST_LINK_KINDS = 250;
const NAMES: Record<SchemeSort, string> = {
  layer: 'layer',
  kind: 'kind',
  field: 'field',
  linkKind: 'link kind',
  rule: 'rule',
  verification: 'rule of verification',
};

/** Everything that keeps parts from making a scheme, and what would make one that can hardly be meant. */
export function checkScheme(parts: readonly SchemePart[]): SchemeIssue[] {
  const issues: SchemeIssue[] = [];
  const tell = (severity: SchemeIssue['severity'], { sort, key }: Pick<SchemePart, 'sort' | 'key'>, message: string) =>
    void issues.push({ severity, sort, key, message });
  const live = parts.filter((part) => !part.retired);
  const keys = (sort: SchemeSort, among = parts) => new Set(among.filter((part) => part.sort === sort).map((part) => part.key));
  const layers = keys('layer', live);
  const kinds = keys('kind');
  const linkKinds = keys('linkKind');
  const scheme = assembleScheme(parts);
  for (const { sort, key } of parts)
    if (parts.filter((other) => other.sort === sort && other.key === key).length > 1) tell('error', { sort, key }, `There are two of the key "${key}".`);
  for (const part of live) {
    const label = labelOf(part);
    if (label !== undefined && !label.trim()) tell('error', part, `This ${NAMES[part.sort]} has no name.`);
    if (label?.trim() && live.some((other) => other !== part && other.sort === part.sort && sameName(labelOf(other), label)))
      if (part.sort !== 'field') tell('error', part, `There is another ${NAMES[part.sort]} "${label}".`);
  }
  if (layers.size === 0) tell('error', { sort: 'layer', key: '' }, 'A scheme needs at least one layer.');
  if (keys('kind', live).size === 0) tell('error', { sort: 'kind', key: '' }, 'A scheme needs at least one kind.');
  if (linkKinds.size > MOST_LINK_KINDS)
    tell('error', { sort: 'linkKind', key: '' }, `There are ${linkKinds.size} link kinds; at most ${MOST_LINK_KINDS} can be kept.`);

  for (const part of partsOfSort(live, 'kind'))
    if (!layers.has(part.body.layer)) tell('error', part, `"${part.body.label}" stands in no layer. Choose one for it.`);
  for (const part of partsOfSort(live, 'field')) checkField(part);
  for (const part of partsOfSort(live, 'linkKind')) {
    const { phrase, reverse, fromKinds, toKinds } = part.body;
    if (!reverse.trim()) tell('error', part, `"${phrase}" has no phrase for the way back.`);
    for (const [name, ends] of [
      ['begin', fromKinds],
      ['end', toKinds],
    ] as const) {
      if (ends.length === 0) tell('error', part, `"${phrase}" may ${name} at no kind. Choose at least one.`);
      for (const key of ends) if (!kinds.has(key)) tell('error', part, `"${phrase}" may ${name} at "${key}", which is no kind of this scheme.`);
    }
  }
  for (const part of partsOfSort(live, 'rule')) checkRule(part);
  for (const part of partsOfSort(parts, 'verification')) {
    const { of, verifies, derives, waivedBy } = part.body;
    for (const key of of.kinds) if (!kinds.has(key)) tell('error', part, `Verification is asked of "${key}", which is no kind of this scheme.`);
    for (const key of [verifies, derives])
      if (key !== null && key !== '' && !linkKinds.has(key)) tell('error', part, `Verification goes along "${key}", which is no link kind of this scheme.`);
    if (waivedBy !== '' && !keys('rule').has(waivedBy)) tell('error', part, `Verification is waived with "${waivedBy}", which is no rule of this scheme.`);
    if (of.kinds.length > 0 && (verifies === '' || scheme.linkKinds.find((kind) => kind.id === verifies)?.retired))
      tell('doubt', part, 'No link verifies: nothing can be verified.');
  }
  return issues;

  function checkField(part: Extract<SchemePart, { sort: 'field' }>): void {
    const { label, type, options = [], kinds: own, linkKinds: ownLinks, default: usual } = part.body;
    for (const key of own) if (!kinds.has(key)) tell('error', part, `"${label}" is a field of "${key}", which is no kind of this scheme.`);
    for (const key of ownLinks) if (!linkKinds.has(key)) tell('error', part, `"${label}" is a field of "${key}", which is no link kind of this scheme.`);
    if (own.length + ownLinks.length === 0) tell('error', part, `"${label}" is a field of nothing. Choose a kind, or retire it.`);
    if (type === 'choice' && options.length === 0) tell('error', part, `"${label}" is one of several, but has nothing to choose.`);
    const twice = options.find((option, index) => options.findIndex((other) => sameName(other, option)) < index);
    if (twice !== undefined) tell('error', part, `"${label}" offers "${twice}" twice.`);
    if (options.some((option) => !option.trim())) tell('error', part, `"${label}" offers a choice without a name.`);
    if (usual !== undefined && usual !== null && !fitsField({ id: part.key, ...part.body }, usual))
      tell('error', part, `${JSON.stringify(usual)} is no value of "${label}".`);
    for (const other of partsOfSort(live, 'field'))
      if (other.key < part.key && sameName(other.body.label, label) && other.body.kinds.some((kind) => own.includes(kind)))
        tell('error', part, `A kind would have two fields "${label}".`);
  }

  function checkRule(part: Extract<SchemePart, { sort: 'rule' }>): void {
    const { label, of, along, steps, atLeast, reach } = part.body;
    const named = (filter: typeof of, what: string) => {
      if (filter.kinds.length === 0) tell('error', part, `"${label}" says no kind ${what}.`);
      for (const key of filter.kinds) if (!kinds.has(key)) tell('error', part, `"${label}" names "${key}", which is no kind of this scheme.`);
      const { field } = filter;
      if (field && field.oneOf.length === 0) tell('error', part, `"${label}" says no value of the field that it looks at.`);
      if (field && !filter.kinds.some((key) => scheme.kinds.find((kind) => kind.id === key)?.fields.some((one) => one.id === field.id)))
        tell('doubt', part, `"${label}" looks at a field that its kinds do not have: nothing passes.`);
    };
    named(of, 'that it is asked of');
    named(reach, 'that is to be reached');
    if (along.length === 0) tell('error', part, `"${label}" follows no link.`);
    for (const { linkKind } of along)
      if (!linkKinds.has(linkKind)) tell('error', part, `"${label}" follows "${linkKind}", which is no link kind of this scheme.`);
    if (!(steps >= 1 && steps <= 8)) tell('error', part, `"${label}" goes over ${steps} links; 1 to 8 are possible.`);
    if (!(atLeast >= 1)) tell('error', part, `"${label}" asks for fewer than one.`);
    if (!issues.some((issue) => issue.key === part.key && issue.severity === 'error') && !canBeMet(part.body))
      tell('doubt', part, `"${label}" can never be met: no links that the scheme allows lead there over ${steps === 1 ? 'one link' : `${steps} links`}.`);
  }

  function canBeMet({ of, along, steps, reach }: Extract<SchemePart, { sort: 'rule' }>['body']): boolean {
    let reached = new Set(of.kinds);
    for (let step = 0; step < steps; step++) {
      const next = new Set<string>();
      for (const { linkKind: key, direction } of along) {
        const linkKind = scheme.linkKinds.find((one) => one.id === key);
        if (!linkKind) continue;
        for (const from of linkKind.fromKinds)
          for (const to of linkKind.toKinds) {
            if (!isAllowed(linkKind, from, to)) continue;
            if (direction === 'out' && reached.has(from)) next.add(to);
            if (direction === 'in' && reached.has(to)) next.add(from);
          }
      }
      if (reach.kinds.some((kind) => next.has(kind))) return true;
      reached = new Set([...reached, ...next]);
    }
    return false;
  }
}

/** What people know a part by. */
export function labelOf(part: SchemePart): string | undefined {
  if (part.sort === 'linkKind') return part.body.phrase;
  return part.sort === 'verification' ? undefined : part.body.label;
}

function sameName(one: string | undefined, other: string | undefined): boolean {
  return one !== undefined && other !== undefined && one.trim().toLowerCase() === other.trim().toLowerCase();
}
