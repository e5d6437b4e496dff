import { type DocumentRecipe, findTableMeaning, readItemTable, type SourceBlock, type TableMeaning } from '@coomb/core';
import { findReferenceTest } from './recognised';

/** What was clicked in a document: a block, and the column of a table. */
export interface PickedPart {
  block: SourceBlock;
  column?: number;
}

/** Accessible name of the control that says what the part means (below the `table` of that header, as columns and labels may share names), and the recipe with that control in it; undefined where nothing is to be said. */
export function pickPart(recipe: DocumentRecipe, { block, column = 0 }: PickedPart): { control: string; recipe: DocumentRecipe; table?: string } | undefined {
  if (block.type === 'table') {
    const isReference = findReferenceTest(recipe.identifier);
    const table = findTableMeaning(recipe.tables, block, isReference);
    if (!table) {
      const { header, columns } = readItemTable(block, isReference);
      const unknown: TableMeaning = { header, use: 'text', columns: columns.map((name) => ({ name, meaning: { as: 'ignore' } })) };
      return { control: `Use of tables ${header}`, table: header, recipe: { ...recipe, tables: [...recipe.tables, unknown] } };
    }
    const name = table.use === 'items' ? table.columns[column]?.name : undefined;
    return { control: name ? `Meaning of ${name}` : `Use of tables ${table.header}`, table: table.header, recipe };
  }
  if (block.level > 0) return { control: `Headings of level ${block.level}`, recipe };
  const label = /^([\p{L}][^:\n]{0,39}):\s/u.exec(block.text)?.[1]?.trim();
  if (!label) return block.text.trim() ? { control: 'Shape of references', recipe } : undefined;
  if (recipe.labels.some((one) => one.label.toLowerCase() === label.toLowerCase())) return { control: `Meaning of ${label}`, recipe };
  if (/\d/.test(label)) return { control: 'Shape of references', recipe };
  return { control: `Meaning of ${label}`, recipe: { ...recipe, labels: [...recipe.labels, { label, meaning: { as: 'ignore' } }] } };
}
