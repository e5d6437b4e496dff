/** Hands a file over to be saved. */
export function saveFile(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  Object.assign(document.createElement('a'), { href: url, download: name }).click();
  URL.revokeObjectURL(url);
}
