import { Box } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { verificationStates } from '@coomb/core';
import { useFills } from '../colour-key/fills';
import { OneLine } from './one-line';
import { Filled } from './reference';
import { StateMark } from './states';

/** What a row of an outline says in a list: state, reference and title of an item, or the words of a heading. */
export function RowLabel({ outline, row }: { outline: OutlineReply; row: number }) {
  const title = outline.title[row]!;
  const fill = useFills()?.get(outline.reference[row]!);
  if (outline.heading[row] === 1) return <OneLine flex="1" minW="0" fontFamily="serif" fontSize="14px" fontWeight="600" text={title} />;
  const state = verificationStates[outline.state[row]!]!;
  return (
    <>
      {state === 'notApplicable' ? <Box boxSize="14px" borderRadius="3px" bg="state.notApplicable" flexShrink={0} /> : <StateMark state={state} bare />}
      <Box fontFamily="mono" fontSize="12px" color="moss.fg" flexShrink={0}>
        {fill ? <Filled coat={fill}>{outline.reference[row]}</Filled> : outline.reference[row]}
      </Box>
      <OneLine flex="1" minW="0" fontFamily="serif" fontSize="14px" text={title} />
    </>
  );
}
