import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { RecipeBody } from '@coomb/contract';
import { Download, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { useProject } from '../../shared/live/project-queries';
import { Choice } from '../../shared/ui/choice';
import { notifyError } from '../../shared/ui/notices';
import { useKeepRecipe, useRecipes } from './queries';
import { readRecipeFile, saveRecipeFile } from './recipe-file';

interface Props {
  /** The recipe as it stands in the view. */
  body: RecipeBody;
  /** Id of the kept recipe it came from, if any. */
  kept: string | undefined;
  /** Name of the file that it reads. */
  file?: string;
  /** Name of the older version whose recipe this was. */
  like?: string | undefined;
  onPut: (body: RecipeBody, kept: string | undefined) => void;
}

/** Which recipe is followed: proposed, ready, kept in the project, or from a file; and keeping the present one. */
export function RecipeBar({ body, kept, file, like, onPut }: Props) {
  const project = useProject();
  const recipes = (useRecipes(project.id).data ?? []).filter((one) => one.body.reads === body.reads);
  const keep = useKeepRecipe(project.id);
  const input = useRef<HTMLInputElement>(null);
  const [naming, setNaming] = useState<string>();
  const current = recipes.find((one) => one.id === kept);
  const save = (name: string, id?: string) =>
    keep.mutate(
      { name, body: { ...body, recipe: { ...body.recipe, name } } as RecipeBody, ...(id && { id }) },
      {
        onSuccess: (saved) => {
          setNaming(undefined);
          onPut(saved.body, saved.id);
        },
      },
    );
  return (
    <Flex gap="1.5" align="center" wrap="wrap">
      <Choice
        label="Recipe"
        value={kept ?? ''}
        options={[
          { value: '', label: like === undefined ? 'recipe: proposed from the file' : `recipe: as ${like} was read` },
          ...recipes.map((one) => ({ value: one.id, label: one.ready ? `${one.name} (comes with Coomb)` : one.name })),
        ]}
        onChange={(id) => {
          const chosen = recipes.find((one) => one.id === id);
          if (chosen) onPut(chosen.body, chosen.id);
        }}
        width="270px"
      />
      {naming === undefined ? (
        <>
          {current && !current.ready && (
            <Button
              size="2xs"
              variant="outline"
              loading={keep.isPending}
              onClick={() => save(current.name, current.id)}
              title="Keep the changes in this recipe"
            >
              Keep changes
            </Button>
          )}
          <Button size="2xs" variant="outline" onClick={() => setNaming(current ? `${current.name} (copy)` : '')}>
            Keep as…
          </Button>
          <Button
            size="2xs"
            variant="ghost"
            title="Save the recipe as a file"
            aria-label="Save the recipe as a file"
            onClick={() => saveRecipeFile(current?.name ?? (file ? `Recipe of ${file.replace(/\.\w+$/, '')}` : 'Recipe'), body)}
          >
            <Download size={12} />
          </Button>
          <Button size="2xs" variant="ghost" title="Take a recipe from a file" aria-label="Take a recipe from a file" onClick={() => input.current?.click()}>
            <Upload size={12} />
          </Button>
        </>
      ) : (
        <Flex
          as="form"
          gap="1.5"
          onSubmit={(event) => {
            event.preventDefault();
            if (naming.trim()) save(naming.trim());
          }}
        >
          <Input
            size="2xs"
            autoFocus
            w="200px"
            aria-label="Name of the recipe"
            placeholder="Name of the recipe"
            value={naming}
            maxLength={120}
            onChange={(event) => setNaming(event.target.value)}
          />
          <Button type="submit" size="2xs" disabled={!naming.trim()} loading={keep.isPending}>
            Keep
          </Button>
          <Button size="2xs" variant="ghost" onClick={() => setNaming(undefined)}>
            Leave
          </Button>
        </Flex>
      )}
      <Box asChild display="none">
        <input
          ref={input}
          type="file"
          accept=".json"
          aria-label="Recipe file"
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (!file) return;
            readRecipeFile(file)
              .then((read) => {
                if (read.body.reads !== body.reads) throw new Error(`"${read.name}" reads files of another sort (${read.body.reads}).`);
                onPut(read.body, undefined);
              })
              .catch(notifyError);
          }}
        />
      </Box>
    </Flex>
  );
}
