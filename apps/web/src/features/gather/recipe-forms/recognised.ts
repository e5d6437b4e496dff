import {
  buildPhrases,
  buildReferenceTest,
  type DocumentRecipe,
  findKind,
  findTableMeaning,
  type Meaning,
  readCard,
  readItemTable,
  type Scheme,
  type SourceTable,
} from '@coomb/core';

/** What a recipe takes the cells of a table for, in words, by row and cell: below the names of columns, or beside the labels of a card. */
export function nameCells(scheme: Scheme, recipe: DocumentRecipe, table: SourceTable): Map<string, string> {
  const names = new Map<string, string>();
  const isReference = findReferenceTest(recipe.identifier);
  const meaning = findTableMeaning(recipe.tables, table, isReference);
  if (meaning?.use === 'items') {
    const { first } = readItemTable(table, isReference);
    let column = 0;
    const row = Math.max(0, first - 1);
    table.rows[row]?.forEach((cell, at) => {
      const words = nameMeaning(scheme, recipe.kind, meaning.columns[column]?.meaning);
      if (words) names.set(`${row}:${at}`, words);
      column += cell.span;
    });
  }
  if (meaning?.use === 'fields' && readCard(table))
    table.rows.forEach((row, at) => {
      for (let cell = 0; cell + 1 < row.length; cell += 2) {
        const label = row[cell]!.text.trim().replace(/\s+/g, ' ').replace(/\s*:$/, '');
        const words = nameMeaning(scheme, recipe.kind, meaning.columns.find((one) => one.name === label)?.meaning);
        if (words) names.set(`${at}:${cell}`, words);
      }
    });
  return names;
}

/** "field: priority", "link: is derived from", "reference"; nothing for what is left out. */
export function nameMeaning(scheme: Scheme, kind: string, meaning: Meaning | undefined): string | undefined {
  if (!meaning || meaning.as === 'ignore') return undefined;
  if (meaning.as === 'field')
    return (
      findKind(scheme, kind)
        ?.fields.find((field) => field.id === meaning.field)
        ?.label.toLowerCase() ?? meaning.field
    );
  if (meaning.as !== 'link') return meaning.as === 'number' ? 'outline number' : meaning.as;
  const link = scheme.linkKinds.find((one) => one.id === meaning.linkKind);
  return link && (meaning.reversed ? link.reverse : link.phrase);
}

/** Finds the words of a text that lead to values: labels at the start of lines, and phrases with what they lead to. */
export function buildLeads(recipe: Pick<DocumentRecipe, 'labels' | 'phrases'>): (text: string) => { start: number; end: number }[] {
  const phrases = buildPhrases(recipe.phrases ?? []);
  const labels = new Set(recipe.labels.filter(({ meaning }) => meaning.as !== 'ignore').map(({ label }) => label.toLowerCase()));
  return (text) => [
    ...phrases(text),
    ...[...text.matchAll(/(?:^|\n)[^\S\n]*([^:\n]{1,40}):/g)].flatMap((match) =>
      labels.has(match[1]!.trim().toLowerCase()) ? [{ start: match.index + match[0].indexOf(match[1]!), end: match.index + match[0].length }] : [],
    ),
  ];
}

/** A pattern that somebody is still writing may be no pattern yet. */
export function findReferenceTest(pattern: string): (text: string) => boolean {
  try {
    return buildReferenceTest(pattern);
  } catch {
    return buildReferenceTest('');
  }
}
