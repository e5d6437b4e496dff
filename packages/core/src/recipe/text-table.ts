import type { SourceCell, SourceTable } from '../source/document.js';

interface Written {
  cell: SourceCell;
  /** Rows that it takes. */
  down: number;
}

/** A table as markup of a text; cells that go on from above are one cell over several rows. */
export function writeTextTable(rows: SourceTable['rows']): string {
  let above = new Map<number, Written>();
  const written = rows.map((row) => {
    const here: Written[] = [];
    const next: typeof above = new Map();
    let column = 0;
    for (const cell of row) {
      const from = cell.continued ? above.get(column) : undefined;
      const isSame = from !== undefined && from.cell.text === cell.text && from.cell.span === cell.span;
      const own = isSame ? from : { cell, down: 0 };
      own.down++;
      if (!isSame) here.push(own);
      next.set(column, own);
      column += cell.span;
    }
    above = next;
    return here;
  });
  return `<table><tbody>${written.map((row) => `<tr>${row.map(writeCell).join('')}</tr>`).join('')}</tbody></table>`;
}

function writeCell({ cell: { span, html, heads }, down }: Written): string {
  const name = heads ? 'th' : 'td';
  return `<${name}${span > 1 ? ` colspan="${span}"` : ''}${down > 1 ? ` rowspan="${down}"` : ''}>${html}</${name}>`;
}
