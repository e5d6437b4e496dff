import type { SourceBlock } from '@coomb/core';

/**
 * Markup of a paragraph whose characters are those of its plain text one by one, so that passages are counted alike in both; pictures are
 * named by an attribute. Undefined where they differ, as around line breaks: then the plain text is shown.
 */
export function findShownHtml(block: Exclude<SourceBlock, { type: 'table' }>): string | undefined {
  if (!block.html.includes('<')) return undefined;
  const html = block.html.replace(/<img [^>]*?alt="([^"]*)"[^>]*>/g, '<i data-picture="$1"></i>').replace(/<img [^>]*>/g, '<i data-picture=""></i>');
  const template = document.createElement('template');
  template.innerHTML = html;
  return template.content.textContent === block.text ? html : undefined;
}
