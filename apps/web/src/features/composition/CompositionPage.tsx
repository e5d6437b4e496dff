import { Box } from '@chakra-ui/react';
import { Link } from 'react-router';
import { useAddress } from '../../shared/address';
import { useOutline, useProject } from '../../shared/live/project-queries';
import { EmptyState, ErrorNote, Loading } from '../../shared/ui/feedback';
import { address } from './address';
import { CompositionDesk } from './CompositionDesk';
import { useWholes } from '../../shared/live/wholes';

/** What a system is made of, use by use, beside a list of what it may be linked with. */
export function CompositionPage() {
  const project = useProject();
  const wholes = useWholes(project.id);
  const outline = useOutline();
  const [view, set] = useAddress(address);
  const error = wholes.error ?? outline.error;
  if (error) return <ErrorNote error={error} />;
  if (!wholes.data || !outline.data) return <Loading what="the composition" />;
  const root = wholes.data.wholes.find(({ item }) => item.id === view.root || item.reference === view.root) ?? wholes.data.wholes[0];
  if (!root)
    return (
      <EmptyState alone title="Nothing is made of parts yet">
        <Box asChild textDecoration="underline">
          <Link to={`/p/${project.id}/gather`}>Gather</Link>
        </Box>{' '}
        a model with composite parts, or write parts below a component: they are shown here, in every place that they are used.
      </EmptyState>
    );
  return <CompositionDesk key={root.item.id} root={root} wholes={wholes.data.wholes} outline={outline.data} view={view} set={set} />;
}
