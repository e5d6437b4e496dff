import type { RegisterRow, RegisterValue } from '@coomb/contract';
import { type Coat, stateWords, type VerificationState, verificationStates } from '@coomb/core';
import { format } from 'date-fns';
import type { ReactNode } from 'react';
import { carries } from '../../shared/marks/drag-items';
import { Filled } from '../../shared/ui/reference';
import { stateGlyphs } from '../../shared/ui/state-glyphs';
import { Glyph } from '../../shared/ui/states';
import { type Refusal, textOf } from './use-cells';

const stateNamed = new Map<string, VerificationState>(verificationStates.map((state) => [stateWords[state].label, state]));

interface Props {
  row: RegisterRow;
  value: RegisterValue;
  /** What the column shows, and whether of the item itself. */
  sort: string;
  isOwn: boolean;
  type: string | null;
  refusal: Refusal | undefined;
  /** Whether a lens lights others. */
  isFaint: boolean;
  fills: ReadonlyMap<string, Coat> | undefined;
  addressOf: (reference: string) => string;
}

/**
 * A value in its cell, in plain elements (the grid follows its references, and tells what is cut); what was refused stands in its place, with the
 * reason. Called, not rendered: a component for each of hundreds of cells would cost frames while one scrolls.
 */
export function drawValue(props: Props): ReactNode {
  const { refusal } = props;
  if (refusal)
    return (
      <div className="refused" title={refusal.says} role="alert">
        <span className="t">{refusal.text || '(empty)'}</span>
      </div>
    );
  return props.isFaint ? <div className="is-faint">{sayValue(props)}</div> : sayValue(props);
}

function sayValue({ row, value, sort, isOwn, type, fills, addressOf }: Props): ReactNode {
  if (value === null || (row.isContext && !(isOwn && (sort === 'reference' || sort === 'title')))) return null;
  if (typeof value === 'number') return <span className="figure">{value}</span>;
  const referTo = (reference: string, at = 0) => {
    const fill = fills?.get(reference);
    return (
      <a key={at} className="reference" href={addressOf(reference)} {...carries(reference)}>
        {fill ? <Filled coat={fill}>{reference}</Filled> : reference}
      </a>
    );
  };
  if (sort === 'reference' && isOwn) return referTo(row.item.reference);
  if (sort === 'reference')
    return (
      <span className="t">
        {(Array.isArray(value) ? value : [String(value)]).flatMap((reference, at) => (at > 0 ? [', ', referTo(reference, at)] : [referTo(reference)]))}
      </span>
    );
  if (sort === 'title' && isOwn)
    return (
      <span className={row.isContext || row.item.heading ? 't title is-head' : 't title'} dir="auto" style={{ paddingLeft: row.depth * 14 }}>
        {value}
      </span>
    );
  const state = sort === 'state' ? stateNamed.get(String(value)) : undefined;
  const text = type === 'moment' && typeof value === 'string' ? sayMoment(value) : textOf(value);
  return (
    <>
      {state && (
        <span className="state" style={{ background: `var(--chakra-colors-state-${state === 'notApplicable' ? 'not-applicable' : state})` }}>
          <Glyph path={stateGlyphs[state]} />
        </span>
      )}
      <span className="t" dir="auto">
        {text}
      </span>
    </>
  );
}

const sayMoment = (value: string) => {
  const at = new Date(value);
  return Number.isNaN(at.getTime()) ? value : format(at, 'd MMM yyyy');
};
