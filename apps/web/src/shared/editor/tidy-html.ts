/** The editor's HTML as texts are stored here: no widths of columns, no spans of one, no paragraph that is all of a cell or list item, heads of tables apart. */
export function tidyHtml(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const element of body.querySelectorAll('colgroup, figcaption:empty')) element.remove();
  for (const table of body.querySelectorAll('table')) {
    for (const { name } of [...table.attributes]) table.removeAttribute(name);
    divideHead(table);
  }
  for (const name of ['colspan', 'rowspan']) for (const cell of body.querySelectorAll(`[${name}="1"]`)) cell.removeAttribute(name);
  for (const name of ['contenteditable', 'draggable']) for (const element of body.querySelectorAll(`[${name}]`)) element.removeAttribute(name);
  for (const holder of body.querySelectorAll('td, th, li')) {
    const [first, next, ...others] = holder.childNodes;
    // Words and a list below them need no paragraph either.
    const isAll = !next || (others.length === 0 && holder.localName === 'li' && /^[uo]l$/i.test(next.nodeName));
    if (isAll && first?.nodeName === 'P' && first.childNodes.length > 0) first.replaceWith(...first.childNodes);
  }
  return body.innerHTML;
}

/** Rows that stood in the head of a table when it came stand there again, as long as nothing is above them. */
function divideHead(table: HTMLTableElement): void {
  const [inner] = table.tBodies;
  if (!inner) return;
  const head = document.createElement('thead');
  while (inner.firstElementChild?.hasAttribute('data-head')) head.append(inner.firstElementChild);
  if (head.firstElementChild) inner.before(head);
  if (!inner.firstElementChild) inner.remove();
  for (const row of table.rows) row.removeAttribute('data-head');
}
