/** Whether bytes begin as XML does, in whatever encoding has a byte or two for each letter. */
export const isXml = (bytes: Uint8Array) =>
  /^\s*<(\?xml|!--|[\w:]+)/.test(
    Buffer.from(bytes.subarray(0, 200))
      .toString('utf8')
      .replace(/^\uFEFF/, '')
      .replaceAll('\0', ''),
  );

/** Name of the first element, without its prefix. */
export const rootOf = (bytes: Uint8Array) =>
  /<(?:[\w-]+:)?([A-Za-z][\w-]*)[\s>]/.exec(
    Buffer.from(bytes.subarray(0, 8192))
      .toString('utf8')
      .replaceAll('\0', '')
      .replace(/<!--[\s\S]*?-->|<\?[\s\S]*?\?>/g, ''),
  )?.[1] ?? '';

/** Namespace of the first element, as far as its own tag says it. */
export function namespaceOf(bytes: Uint8Array): string {
  const text = Buffer.from(bytes.subarray(0, 16_384))
    .toString('utf8')
    .replaceAll('\0', '')
    .replace(/<!--[\s\S]*?-->|<\?[\s\S]*?\?>/g, '');
  const tag = /<([A-Za-z][\w.-]*:)?[A-Za-z][\w.-]*([^>]*)>?/.exec(text);
  if (!tag) return '';
  const name = tag[1] ? `xmlns:${tag[1].slice(0, -1)}` : 'xmlns';
  return new RegExp(`(?:^|\\s)${name}\\s*=\\s*["']([^"']*)["']`).exec(tag[2]!)?.[1] ?? '';
}
