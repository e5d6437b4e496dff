import { keepRecipe, listRecipes, withdrawRecipe } from '@coomb/contract';
import { Controller, Inject } from '@nestjs/common';
import { Call, type Input, Route } from '../http/route.js';
import { RecipesService } from './recipes.service.js';

@Controller()
export class RecipesController {
  constructor(@Inject(RecipesService) private readonly recipes: RecipesService) {}

  @Route(listRecipes)
  list(@Call(listRecipes) { params }: Input<typeof listRecipes>) {
    return this.recipes.list(params.project);
  }

  @Route(keepRecipe)
  keep(@Call(keepRecipe) { params, body, person }: Input<typeof keepRecipe>) {
    return this.recipes.keep(params.project, person, body);
  }

  @Route(withdrawRecipe)
  withdraw(@Call(withdrawRecipe) { params, person }: Input<typeof withdrawRecipe>) {
    return this.recipes.withdraw(params.project, person, params.recipe);
  }
}
