import type { Response } from 'express';

/** Pictures are shown in place; everything else is handed over as a download, never opened as a page of ours. */
export function sendFile(response: Response, file: { name: string; mediaType: string; bytes: Uint8Array }): void {
  const isPicture = /^image\/(png|jpeg|gif|webp|bmp|svg\+xml)$/.test(file.mediaType);
  response.setHeader('Content-Type', isPicture ? file.mediaType : 'application/octet-stream');
  response.setHeader('Content-Disposition', `${isPicture ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name.replace(/^.*\//, ''))}`);
  // A drawing opened by itself may neither run nor fetch anything.
  response.setHeader('Content-Security-Policy', "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src data:");
  response.setHeader('Cache-Control', 'private, max-age=31536000, immutable');
  response.end(Buffer.from(file.bytes));
}
