import { Box, Flex } from '@chakra-ui/react';
import { counted, figure, stateWords } from '@coomb/core';
import { OneLine } from '../../shared/ui/one-line';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';
import { type ImpactRow, sayWay } from './impact-rows';

/** One item that a change would touch: how far it is, by which way, by how many ways. */
export function ImpactLine({ row }: { row: ImpactRow }) {
  if ('head' in row)
    return (
      <Flex align="baseline" gap="2" flex="1" fontSize="13.5px">
        <Box fontWeight="650">{row.head}</Box>
        <Box color="fg.muted">
          {figure(row.count)}
          {row.explains && ` · ${row.explains}`}
        </Box>
      </Flex>
    );
  const item = 'affected' in row ? row.affected.item : row.stale.item;
  return (
    <>
      {'affected' in row && row.depth > 0 && <Box flexShrink={0} w={`${Math.min(row.depth, 12) * 18}px`} alignSelf="stretch" borderRightWidth="1px" />}
      {item.state === 'notApplicable' ? <Box boxSize="14px" flexShrink={0} /> : <StateMark state={item.state} bare />}
      <Reference reference={item.reference} flexShrink={0} minW="4.6rem" />
      <OneLine flex="1 1 34%" minW="0" fontFamily="serif" fontSize="14.5px" text={item.title} />
      {'stale' in row ? (
        <Box flex="1 1 50%" fontSize="13px" color="fg.warning">
          {stateWords[item.state].label.toLowerCase()} now, would be {stateWords[row.stale.becomes].label.toLowerCase()}
        </Box>
      ) : (
        <>
          <OneLine flex="1 1 50%" minW="0" fontSize="12.5px" color="fg.muted" text={sayWay(row.affected)} />
          <Box flexShrink={0} w="4.2rem" textAlign="right" fontSize="12.5px" color="fg.muted">
            {counted(row.affected.distance, 'link')}
          </Box>
          <Box
            flexShrink={0}
            w="4.6rem"
            textAlign="right"
            fontSize="12.5px"
            fontWeight={(row.affected.paths ?? 1) > 1 ? '600' : '400'}
            color={(row.affected.paths ?? 1) > 1 ? 'fg' : 'fg.muted'}
            title="Ways that share no item between their ends"
          >
            {row.affected.paths === null ? '–' : counted(row.affected.paths, 'way')}
          </Box>
        </>
      )}
    </>
  );
}
