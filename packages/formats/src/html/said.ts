import type { SaidOfBlock } from '@coomb/core';

const LEAD = 'coomb:';

/** A comment of Markdown or HTML that says of the block after it what its words do not. */
export function writeSaid({ isText, reference, parent, field }: SaidOfBlock): string {
  const words = [
    isText && 'text',
    reference !== undefined && `reference ${clean(reference)}`,
    parent !== undefined && `under ${clean(parent)}`,
    field !== undefined && `field ${clean(field)}`,
  ];
  const said = words.filter(Boolean).join('; ');
  return said && `<!-- ${LEAD} ${said} -->`;
}

const clean = (reference: string) => reference.replace(/-{2,}|[<>;]/g, ' ').trim();

/** Undefined for comments of anybody else. */
export function readSaid(comment: string): SaidOfBlock | undefined {
  const text = comment.trim();
  if (!text.startsWith(LEAD)) return undefined;
  const said: SaidOfBlock = {};
  for (const part of text.slice(LEAD.length).split(';')) {
    const [, word, value = ''] = /^\s*(\w+)\s*(.*?)\s*$/.exec(part) ?? [];
    if (word === 'text') said.isText = true;
    if (word === 'reference' && value) said.reference = value;
    if (word === 'under') said.parent = value;
    if (word === 'field' && value) said.field = value;
  }
  return said;
}
