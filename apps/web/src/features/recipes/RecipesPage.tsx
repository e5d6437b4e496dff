import { Box, Button, Flex } from '@chakra-ui/react';
import type { KeptRecipe } from '@coomb/contract';
import { format } from 'date-fns';
import { Link } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { useKeepRecipe, useRecipes, useWithdrawRecipe } from './queries';
import { saveRecipeFile } from './recipe-file';
import { OneLine } from '../../shared/ui/one-line';

const reads = { document: 'documents', sheet: 'sheets', exchange: 'exchange files', model: 'models' };

/** The recipes of the project, those that come with Coomb, and where each was used. */
export function RecipesPage() {
  const project = useProject();
  const recipes = useRecipes(project.id);
  if (recipes.error) return <ErrorNote error={recipes.error} retry={() => void recipes.refetch()} />;
  if (!recipes.data) return <Loading what="the recipes" />;
  const own = recipes.data.filter((one) => !one.ready);
  return (
    <Page>
      {own.length === 0 && (
        <Box color="fg.muted" py="3">
          None is kept yet. Hand in a file, say what its parts mean, and choose “Keep as…”.
        </Box>
      )}
      {own.map((one) => (
        <RecipeEntry key={one.id} project={project.id} recipe={one} />
      ))}
      <Box fontWeight="600" mt="8" mb="1">
        Come with Coomb
      </Box>
      {recipes.data
        .filter((one) => one.ready)
        .map((one) => (
          <RecipeEntry key={one.id} project={project.id} recipe={one} />
        ))}
    </Page>
  );
}

function RecipeEntry({ project, recipe }: { project: string; recipe: KeptRecipe }) {
  const keep = useKeepRecipe(project);
  const withdraw = useWithdrawRecipe(project);
  return (
    <Flex py="1.5" borderTopWidth="1px" gap="4" align="baseline">
      <Box flex="1" minW="0">
        <OneLine text={recipe.name} />
        {recipe.usedBy.length > 0 && (
          <Box color="fg.muted" fontSize="12.5px">
            used for{' '}
            {recipe.usedBy.map((source, index) => (
              <Box as="span" key={source.id}>
                {index > 0 && ', '}
                <Link to={`/p/${project}/gather/sources/${source.id}`} style={{ textDecoration: 'underline' }}>
                  {source.name}
                </Link>
              </Box>
            ))}
          </Box>
        )}
      </Box>
      <Box color="fg.muted" w="10em" whiteSpace="nowrap">
        reads {reads[recipe.body.reads]}
      </Box>
      <OneLine color="fg.muted" w="15em" text={recipe.changedAt ? `${format(new Date(recipe.changedAt), 'd MMM yyyy, HH:mm')} · ${recipe.changedBy}` : ''} />
      <Button size="2xs" variant="outline" onClick={() => keep.mutate({ name: `${recipe.name} (copy)`, body: recipe.body })}>
        Copy
      </Button>
      <Button size="2xs" variant="outline" onClick={() => saveRecipeFile(recipe.name, recipe.body)}>
        Save as a file
      </Button>
      <Flex w="5.5em">
        {!recipe.ready && (
          <Button size="2xs" variant="ghost" onClick={() => withdraw.mutate(recipe.id)}>
            Take away
          </Button>
        )}
      </Flex>
    </Flex>
  );
}
