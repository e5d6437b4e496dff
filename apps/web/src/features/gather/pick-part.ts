import { type DocumentRecipe, headerOf, type SourceBlock } from '@coomb/core';

/** What was clicked in a document: a block, and the column of a table. */
export interface PickedPart {
  block: SourceBlock;
  column?: number;
}

/** Accessible name of the control that says what the part means (below the `table` of that header, as columns and labels may share names), and the recipe with that control in it; undefined where nothing is to be said. */
export function pickPart(recipe: DocumentRecipe, { block, column = 0 }: PickedPart): { control: string; recipe: DocumentRecipe; table?: string } | undefined {
  if (block.type === 'table') {
    const header = headerOf(block.rows[0] ?? []);
    const card = headerOf(block.rows.map((row) => ({ text: row[0]?.text ?? '' })));
    const table = recipe.tables.find((one) => one.header === header || one.header === card);
    if (!table) return { control: `Use of tables ${header}`, table: header, recipe: { ...recipe, tables: [...recipe.tables, newTable(block, header)] } };
    const name = table.use === 'items' ? table.columns[column]?.name : undefined;
    return { control: name ? `Meaning of ${name}` : `Use of tables ${table.header}`, table: table.header, recipe };
  }
  if (block.level > 0) return { control: `Headings of level ${block.level}`, recipe };
  const label = /^([\p{L}][^:\n]{0,39}):\s/u.exec(block.text)?.[1]?.trim();
  if (!label) return block.text.trim() ? { control: 'Pattern of references', recipe } : undefined;
  if (recipe.labels.some((one) => one.label.toLowerCase() === label.toLowerCase())) return { control: `Meaning of ${label}`, recipe };
  if (/\d/.test(label)) return { control: 'Pattern of references', recipe };
  return { control: `Meaning of ${label}`, recipe: { ...recipe, labels: [...recipe.labels, { label, meaning: { as: 'ignore' } }] } };
}

function newTable(block: Extract<SourceBlock, { type: 'table' }>, header: string): DocumentRecipe['tables'][number] {
  return { header, use: 'text', columns: (block.rows[0] ?? []).map((cell) => ({ name: cell.text.trim().replace(/\s+/g, ' '), meaning: { as: 'ignore' } })) };
}
