import type { SourceBlock } from '@coomb/core';

/**
 * Markup of a paragraph whose characters are those of its plain text one by one, so that passages are counted alike in both; stored pictures
 * stand in it, others are named by an attribute. Undefined where they differ, as around line breaks: then the plain text is shown.
 */
export function findShownHtml(block: Exclude<SourceBlock, { type: 'table' }>): string | undefined {
  if (!block.html.includes('<')) return undefined;
  const html = block.html
    .replace(/<img (?!src="\/api\/)[^>]*?alt="([^"]*)"[^>]*>/g, '<i data-picture="$1"></i>')
    .replace(/<img (?!src="\/api\/)[^>]*>/g, '<i data-picture=""></i>');
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  return body.textContent === block.text ? html : undefined;
}

/** Stored pictures in a text. */
export function findPictures(html: string): { src: string; alt: string }[] {
  return [...html.matchAll(/<img src="(\/api\/[^"]*)"(?: alt="([^"]*)")?/g)].map(([, src, alt = '']) => ({ src: src!, alt }));
}
