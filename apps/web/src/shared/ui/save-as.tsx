import { Box, Flex } from '@chakra-ui/react';
import { buildUrl, exportCollection, exportFormats, getExportRecipe } from '@coomb/contract';
import { Fragment } from 'react';

/** Links that save a collection, or some of its items, in each format, with the recipe that reads the file back. */
export function SaveAs({ project, collection, items }: { project: string; collection: string; items?: readonly string[] }) {
  const query = items ? { items: items.join(',') } : {};
  return (
    <Flex gap="2" align="baseline" fontSize="12.5px" whiteSpace="nowrap">
      <Box color="fg.muted">Save as</Box>
      {exportFormats.map((format) => (
        <Fragment key={format}>
          <Box asChild textDecoration="underline" textUnderlineOffset="3px">
            <a href={buildUrl(exportCollection.path, { project, collection, format }, query)} download title={`All of it as .${format}`}>
              .{format}
            </a>
          </Box>
          <Box asChild color="fg.muted" _hover={{ textDecoration: 'underline' }}>
            <a
              href={buildUrl(getExportRecipe.path, { project, collection, format }, query)}
              download={`${format}.recipe.json`}
              title={`The recipe that reads the .${format} file back`}
            >
              recipe
            </a>
          </Box>
        </Fragment>
      ))}
    </Flex>
  );
}
