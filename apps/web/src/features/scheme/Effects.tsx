import { Box, Button, Flex } from '@chakra-ui/react';
import type { SchemeEffect, SchemeWish } from '@coomb/contract';
import { figure } from '@coomb/core';
import { useState } from 'react';
import { Choice } from '../../shared/ui/choice';
import { ErrorNote } from '../../shared/ui/feedback';
import { Reference } from '../../shared/ui/reference';
import { type Preview, useEffectRows } from './queries';

/** What a change would do to what is there: figures that open, and what becomes of each. */
export function Effects({
  project,
  wish,
  effects,
  onAnswer,
}: {
  project: string;
  wish: SchemeWish;
  effects: Preview['effects'];
  onAnswer: (effect: string, choice: string) => void;
}) {
  const [open, setOpen] = useState('');
  return (
    <Box as="ul" listStyleType="none">
      {effects.map((effect) => (
        <Box as="li" key={effect.id} borderTopWidth="1px" py="1.5">
          <Flex asChild gap="2" align="baseline" w="100%" textAlign="left" _hover={{ color: 'moss.fg' }}>
            <button type="button" aria-expanded={open === effect.id} disabled={!effect.opens} onClick={() => setOpen(open === effect.id ? '' : effect.id)}>
              <Box minW="2.2rem" textAlign="right" fontFamily="serif" fontSize="17px" fontWeight="600">
                {figure(effect.count)}
              </Box>
              <Box flex="1" fontSize="13.5px" textDecoration="underline" textDecorationColor="border.emphasized" textUnderlineOffset="3px">
                {effect.says}
              </Box>
            </button>
          </Flex>
          {effect.choices.length > 1 && (
            <Box pl="2.7rem" pt="1">
              <Choice
                label={`What becomes of it: ${effect.says}`}
                width="100%"
                value={effect.chosen ?? ''}
                options={effect.choices.map((choice) => ({ value: choice.id, label: choice.label }))}
                onChange={(choice) => onAnswer(effect.id, choice)}
              />
            </Box>
          )}
          {open === effect.id && <Rows project={project} wish={wish} effect={effect} />}
        </Box>
      ))}
    </Box>
  );
}

function Rows({ project, wish, effect }: { project: string; wish: SchemeWish; effect: SchemeEffect }) {
  const [limit, setLimit] = useState(50);
  const rows = useEffectRows(project, effect.id, wish, limit);
  if (rows.error) return <ErrorNote error={rows.error} />;
  const end = (item: NonNullable<typeof rows.data>['rows'][number]['item']) =>
    item && (
      <>
        <Reference reference={item.reference} /> {item.title}
      </>
    );
  return (
    <Box pl="2.7rem" pt="1" maxH="220px" overflowY="auto" tabIndex={0} fontSize="13px">
      {rows.data?.rows.map((row, index) => (
        <Box key={`${index} ${row.item?.id}`} py="0.5">
          {end(row.item)}{' '}
          {row.phrase && (
            <Box as="em" color="fg.muted">
              {row.phrase}
            </Box>
          )}{' '}
          {end(row.other)}
          {row.note && (
            <Box as="span" color="fg.muted">
              {' '}
              {row.note}
            </Box>
          )}
        </Box>
      ))}
      {(rows.data?.total ?? 0) > limit && (
        <Button size="2xs" variant="outline" my="1" disabled={limit >= 500} onClick={() => setLimit(Math.min(500, limit + 150))}>
          {limit >= 500 ? `and ${figure(rows.data!.total - 500)} more` : `Show more of ${figure(rows.data!.total)}`}
        </Button>
      )}
    </Box>
  );
}
