import { Box } from '@chakra-ui/react';
import type { RegisterRow, RegisterValue } from '@coomb/contract';
import { stateWords, type VerificationState, verificationStates } from '@coomb/core';
import { format } from 'date-fns';
import { OneLine } from '../../shared/ui/one-line';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
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
}

/** A value in its cell; what was refused stands in its place, with the reason. */
export function Cell({ row, value, sort, isOwn, type, refusal }: Props) {
  if (refusal)
    return (
      <Box position="absolute" inset="0" px="2" display="flex" alignItems="center" bg="brick.subtle" color="brick.fg" title={refusal.says} role="alert">
        <Box truncate>{refusal.text || '(empty)'}</Box>
      </Box>
    );
  if (value === null || (row.isContext && !(isOwn && (sort === 'reference' || sort === 'title')))) return null;
  if (typeof value === 'number')
    return (
      <Box w="100%" textAlign="right" fontVariantNumeric="tabular-nums">
        {value}
      </Box>
    );
  if (sort === 'reference' && isOwn) return <Reference reference={row.item.reference} />;
  if (sort === 'reference')
    return (
      <Box truncate title={textOf(value)}>
        {(Array.isArray(value) ? value : [String(value)]).map((reference, at) => (
          <Box as="span" key={reference} mr="1">
            <Reference reference={reference} />
            {Array.isArray(value) && at < value.length - 1 && ','}
          </Box>
        ))}
      </Box>
    );
  if (sort === 'title' && isOwn)
    return (
      <OneLine
        fontFamily="serif"
        fontSize="14.5px"
        fontWeight={row.isContext || row.item.heading ? '600' : '400'}
        text={String(value)}
        style={{ paddingLeft: row.depth * 14 }}
      />
    );
  const state = sort === 'state' ? stateNamed.get(String(value)) : undefined;
  if (state)
    return (
      <Box display="flex" gap="1.5" alignItems="center" minW="0">
        <StateMark state={state} bare />
        <OneLine text={String(value)} />
      </Box>
    );
  if (type === 'moment' && typeof value === 'string') return <OneLine text={sayMoment(value)} />;
  return <OneLine text={textOf(value)} />;
}

const sayMoment = (value: string) => {
  const at = new Date(value);
  return Number.isNaN(at.getTime()) ? value : format(at, 'd MMM yyyy');
};
