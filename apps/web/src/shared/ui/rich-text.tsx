import { Box, type BoxProps } from '@chakra-ui/react';
import { itemScheme, mathAttributes, richTextTags } from '@coomb/core';
import DOMPurify from 'dompurify';
import { useMemo } from 'react';

declare const safe: unique symbol;
/** Markup that went through the sanitiser of this page. Nothing else is put into it. */
export type SafeHtml = string & { readonly [safe]: true };

/** Tracked changes and marks of what was recognised are shown in sources; they are no part of stored texts. */
const SHOWN_TAGS = [...richTextTags, 'ins', 'del', 'mark', 'span', 'i'];

/** Pictures are stored here or written into the text; none is fetched from elsewhere. */
DOMPurify.addHook('uponSanitizeAttribute', (_, attribute) => {
  if (attribute.attrName === 'src' && !/^(?:\/api\/|data:image\/|blob:|coomb-picture:)/.test(attribute.attrValue)) attribute.keepAttr = false;
});

/** Links to items open them at the side of whatever is shown; links to pages elsewhere do not take this one away. */
DOMPurify.addHook('afterSanitizeAttributes', (element) => {
  if (element.localName !== 'a') return;
  const address = element.getAttribute('href') ?? '';
  if (address.startsWith(itemScheme)) element.setAttribute('data-item', address.slice(itemScheme.length));
  else if (/^https?:/i.test(address)) {
    element.setAttribute('target', '_blank');
    element.setAttribute('rel', 'noopener noreferrer');
  }
});

/** The one way for markup into the page. What is no text (a field of another type, say) comes out as the words it is, never as markup. */
export function sanitise(html: unknown): SafeHtml {
  if (typeof html !== 'string') return sanitise(escapeMarkup(String(html)));
  return DOMPurify.sanitize(html, {
    ALLOWED_TAGS: SHOWN_TAGS,
    ALLOWED_ATTR: [
      'href',
      'src',
      'alt',
      'colspan',
      'rowspan',
      'class',
      'title',
      'data-at',
      'data-end',
      'data-label',
      'data-phrase',
      'data-identifier',
      ...mathAttributes,
    ],
    ALLOW_DATA_ATTR: true,
    ADD_URI_SAFE_ATTR: ['colspan', 'rowspan', ...mathAttributes],
    ALLOWED_URI_REGEXP: /^(?:(?:https?|mailto|coomb-picture|coomb-file|coomb-item):|\/api\/|data:image\/|blob:|#)/i,
  }) as SafeHtml;
}

function escapeMarkup(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}

/** Rich text as it reads, in whatever direction its letters go. */
export function RichText({ html, ...rest }: { html: unknown } & BoxProps) {
  const shown = useMemo(() => sanitise(html), [html]);
  return <Box dir="auto" dangerouslySetInnerHTML={{ __html: shown }} {...rest} />;
}
