/** Text set at a place of a page: points from the left and from the bottom. */
export interface PdfText {
  x: number;
  y: number;
  size: number;
  text: string;
}

/** A PDF of A4 pages that hold these texts in Helvetica, written by hand. */
export function pdfOf(pages: PdfText[][]): Buffer {
  const objects: string[] = ['<< /Type /Catalog /Pages 2 0 R >>', '', '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>'];
  const kids: string[] = [];
  for (const texts of pages) {
    const content = texts
      .map(({ x, y, size, text }) => `BT /F1 ${size} Tf ${x} ${y} Td (${text.replace(/[\\()]/g, '\\$&').replace(/•/g, '\\225')}) Tj ET`)
      .join('\n');
    objects.push(`<< /Length ${Buffer.byteLength(content, 'latin1')} >>\nstream\n${content}\nendstream`);
    const stream = objects.length;
    objects.push(`<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents ${stream} 0 R /Resources << /Font << /F1 3 0 R >> >> >>`);
    kids.push(`${objects.length} 0 R`);
  }
  objects[1] = `<< /Type /Pages /Kids [${kids.join(' ')}] /Count ${kids.length} >>`;
  let out = '%PDF-1.4\n';
  const offsets = objects.map((object, index) => {
    const at = Buffer.byteLength(out, 'latin1');
    out += `${index + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const start = Buffer.byteLength(out, 'latin1');
  out += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${offsets.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('')}trailer << /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return Buffer.from(out, 'latin1');
}

/** Lines of one page from the top down, each as text with its size; a blank one leaves a gap. */
export function linesOf(lines: [text: string, size?: number][]): PdfText[] {
  let y = 760;
  return lines.flatMap(([text, size = 10]) => {
    y -= text ? size * 1.3 : 14;
    return text ? [{ x: 72, y, size, text }] : [];
  });
}
