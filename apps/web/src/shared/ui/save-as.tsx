import { Box, Flex } from '@chakra-ui/react';
import { buildUrl, exportCollection, exportFormats, exportItems, getExportRecipe, getItemsRecipe } from '@coomb/contract';
import { useMutation } from '@tanstack/react-query';
import { Fragment, type ReactNode } from 'react';
import { fetchFile } from '../api/client';
import { saveFile } from '../save-file';
import { notifyError } from './notices';

type Format = (typeof exportFormats)[number];

/** Links that save a whole collection in each format, with the recipe that reads the file back. */
export function SaveAs({ project, collection }: { project: string; collection: string }) {
  return (
    <Formats
      file={(format) => (
        <a href={buildUrl(exportCollection.path, { project, collection, format })} download title={`All of it as .${format}`}>
          .{format}
        </a>
      )}
      recipe={(format) => (
        <a
          href={buildUrl(getExportRecipe.path, { project, collection, format })}
          download={`${format}.recipe.json`}
          title={`The recipe that reads the .${format} file back`}
        >
          recipe
        </a>
      )}
    />
  );
}

/** Buttons that save chosen items, of one collection or several, in each format, with the recipe that reads the file back. */
export function SaveChosen({ project, items }: { project: string; items: readonly string[] }) {
  const save = useMutation({
    mutationFn: async ({ format, recipe }: { format: Format; recipe: boolean }) => {
      const input = { params: { project, format }, body: { items: [...items] } };
      const { name, blob } = await fetchFile(recipe ? getItemsRecipe : exportItems, input);
      saveFile(recipe ? `${format}.recipe.json` : name, blob);
    },
    onError: notifyError,
  });
  const button = (format: Format, recipe: boolean, title: string, label: string) => (
    <button type="button" disabled={save.isPending} onClick={() => save.mutate({ format, recipe })} title={title}>
      {label}
    </button>
  );
  return (
    <Formats
      file={(format) => button(format, false, `These ${items.length} items as .${format}`, `.${format}`)}
      recipe={(format) => button(format, true, `The recipe that reads the .${format} file back`, 'recipe')}
    />
  );
}

function Formats({ file, recipe }: { file: (format: Format) => ReactNode; recipe: (format: Format) => ReactNode }) {
  return (
    <Flex gap="2" align="baseline" fontSize="12.5px" whiteSpace="nowrap">
      <Box color="fg.muted">Save as</Box>
      {exportFormats.map((format) => (
        <Fragment key={format}>
          <Box asChild textDecoration="underline" textUnderlineOffset="3px">
            {file(format)}
          </Box>
          <Box asChild color="fg.muted" _hover={{ textDecoration: 'underline' }}>
            {recipe(format)}
          </Box>
        </Fragment>
      ))}
    </Flex>
  );
}
