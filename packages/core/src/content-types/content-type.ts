import type { RecipeOutcome } from '../recipe/draft.js';
import type { Scheme } from '../scheme/scheme.js';
import type { Stepwise } from '../steps/stepwise.js';
import type { SourcePicture } from '../source/document.js';

/**
 * One sort of what files hold that items can be made of. A further sort (a process, a table of decisions) is a file here, beside its recipe,
 * and a line in `content-types.ts`: files of it are proposed for, imported, compared with newer versions, and read by kept recipes. A page of
 * its own for the tray is a view and a line in `shows.ts`, and what that page is given a line of the contract.
 * `Content` is what a reader gives, `Recipe` how it becomes items.
 */
export interface ContentType<Type extends string, Content extends object, Recipe extends object> {
  type: Type;
  /** What kept recipes say that they read, which is also how a request names such a recipe: `sheet`, as `sheetRecipe`. Nothing where there is only one way. */
  reads: string | null;
  /** The recipe for a file that nobody has said anything of; for items of one kind where that is asked. */
  propose: (scheme: Scheme, content: Content, kind?: string) => Recipe;
  /** What the content becomes by a recipe, part by part. Throws RangeError for a recipe that cannot be followed. */
  read: (scheme: Scheme, recipe: Recipe, content: Content) => Stepwise<RecipeOutcome>;
  /** What a page is shown of the content, to make a recipe by or to see what becomes of it. */
  show: (scheme: Scheme, content: Content) => object;
  /** A recipe that was made for another file, fitted to this one. */
  align: (scheme: Scheme, recipe: Recipe, content: Content) => Recipe;
  /** The recipe with what must be kept beside it so that the file reads the same way again. */
  complete?: (recipe: Recipe, content: Content) => Recipe;
  /** The recipe that an older version of the file was read by, for the newer one; undefined where it does not serve. */
  inherit?: (scheme: Scheme, recipe: Recipe, content: Content, isSameFormat: boolean) => Recipe | undefined;
  /** Whether a recipe that was stored without saying what it reads is for this sort. */
  owns: (recipe: object) => boolean;
  /** Pictures that came in the file. */
  pictures?: (content: Content) => ReadonlyMap<string, SourcePicture>;
  /** What the file divides its content into, and how many rows each holds; nothing where it is one whole. */
  parts?: (content: Content) => { name: string; rows: number }[];
}

/** What a reader gives for a sort of content. */
export type ContentOf<T> = T extends ContentType<infer Type, infer Content, infer _Recipe> ? { type: Type } & Content : never;
