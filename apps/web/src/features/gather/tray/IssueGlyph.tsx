import { Box } from '@chakra-ui/react';
import type { Issue } from '@coomb/core';
import { CircleAlert, Info, TriangleAlert } from 'lucide-react';

const looks = {
  error: { icon: CircleAlert, colour: 'brick.fg' },
  warning: { icon: TriangleAlert, colour: 'fg.warning' },
  note: { icon: Info, colour: 'fg.muted' },
};

/** How severe a remark is, by colour, shape and word. */
export function IssueGlyph({ severity }: { severity: Issue['severity'] }) {
  const { icon: Icon, colour } = looks[severity];
  return (
    <Box as="span" color={colour} title={severity} flexShrink={0}>
      <Icon size={12} aria-label={severity} />
    </Box>
  );
}
