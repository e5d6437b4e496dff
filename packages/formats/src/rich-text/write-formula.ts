/** Elements whose parts are told apart by signs; all others are their parts one after another. */
const FORMS: Record<string, (parts: string[]) => string> = {
  mfrac: ([above = '', below = '']) => `${bracketed(above)}/${bracketed(below)}`,
  msqrt: (parts) => `√${bracketed(parts.join(''))}`,
  mroot: ([inside = '', degree = '']) => `root ${degree} of ${bracketed(inside)}`,
  msub: ([base = '', index = '']) => `${base}_${bracketed(index)}`,
  msup: ([base = '', index = '']) => `${base}^${bracketed(index)}`,
  msubsup: ([base = '', below = '', above = '']) => `${base}_${bracketed(below)}^${bracketed(above)}`,
  munder: ([base = '', index = '']) => `${base}_${bracketed(index)}`,
  mover: ([base = '', index = '']) => `${base}^${bracketed(index)}`,
  munderover: ([base = '', below = '', above = '']) => `${base}_${bracketed(below)}^${bracketed(above)}`,
  mfenced: (parts) => `(${parts.join(', ')})`,
  mtable: (rows) => `[${rows.join('; ')}]`,
  mtr: (cells) => cells.join(', '),
  mspace: () => ' ',
  annotation: () => '',
};

const bracketed = (text: string) => (Array.from(text).length > 1 && !/^[\p{L}\p{N}.]+$/u.test(text) && !/^\([^()]*\)$/.test(text) ? `(${text})` : text);

/** A formula in MathML as people type it in a line: `a/b`, `√x`, `h_0^2`. Letters and signs keep their order; entities stay as they are. */
export function writeFormula(mathml: string): string {
  const open: { name: string; parts: string[] }[] = [{ name: '', parts: [] }];
  const close = () => {
    const { name, parts } = open.pop()!;
    open.at(-1)!.parts.push(FORMS[name]?.(parts) ?? parts.join(''));
  };
  for (const [, end, name = '', alone, text] of mathml.matchAll(/<(\/?)([a-z][\w:-]*)[^>]*?(\/?)>|([^<]+)/gi)) {
    if (text !== undefined) {
      if (text.trim()) open.at(-1)!.parts.push(text.trim());
    } else if (!end) {
      open.push({ name: name.toLowerCase(), parts: [] });
      if (alone) close();
    } else if (open.length > 1) close();
  }
  while (open.length > 1) close();
  return open[0]!.parts.join('');
}
