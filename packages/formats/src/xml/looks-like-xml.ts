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
