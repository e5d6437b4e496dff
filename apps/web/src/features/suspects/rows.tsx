import { Box, Flex } from '@chakra-ui/react';
import type { SuspectGroup, SuspectLink } from '@coomb/contract';
import { counted } from '@coomb/core';
import { format } from 'date-fns';
import { Link } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { OneLine } from '../../shared/ui/one-line';
import { PersonMark } from '../../shared/ui/person-mark';
import { Reference } from '../../shared/ui/reference';
import { StateMark } from '../../shared/ui/states';

/** The item that came to say something else, and the change in which it did. */
export function GroupRow({ group: { item, seq, at, person, links } }: { group: SuspectGroup }) {
  const project = useProject();
  return (
    <Flex align="baseline" gap="2" flex="1" minW="0" pt="1">
      <Reference reference={item.reference} fontWeight="600" />
      <OneLine flex="1" minW="0" fontFamily="serif" fontSize="15px" fontWeight="600" text={item.title} />
      <Box asChild flexShrink={0} fontSize="12.5px" color="fg.muted" _hover={{ textDecoration: 'underline' }}>
        <Link to={`/p/${project.id}/changes/${seq}`}>
          {person}, {format(new Date(at), 'd MMM')} · {counted(links.length, 'link')}
        </Link>
      </Box>
    </Flex>
  );
}

export function LinkRow({ link: { phrase, other, both, usage, errand } }: { link: SuspectLink }) {
  return (
    <>
      <Box flexShrink={0} w="9.2rem" fontSize="13px" color="fg.muted" truncate title={phrase}>
        {phrase}
      </Box>
      {other.state === 'notApplicable' ? <Box boxSize="14px" flexShrink={0} /> : <StateMark state={other.state} bare />}
      <Reference reference={other.reference} flexShrink={0} />
      <OneLine flex="1" minW="0" fontFamily="serif" fontSize="14.5px" text={other.title} />
      {usage && <OneLine maxW="10rem" fontSize="12px" color="heather.fg" text={`only as in ${usage}`} />}
      {both && (
        <Box flexShrink={0} fontSize="12px" color="fg.warning">
          both ends changed
        </Box>
      )}
      {errand && (
        <Box flexShrink={0} title={`${errand.owner} has it in hand${errand.note && `: ${errand.note}`}`}>
          <PersonMark name={errand.owner} />
        </Box>
      )}
    </>
  );
}
