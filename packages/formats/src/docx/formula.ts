import { localName } from '../xml/walk-xml.js';

/** Says what a reader adds: words, with the marks that stand around them. */
export type AddWords = (text: string) => void;

interface Open {
  local: string;
  /** Signs that stand around or between its parts. */
  sign: string | undefined;
  end: string;
  parts: number;
}

/**
 * Writes the formulas of a document (Office Math, ECMA-376 part 1, 22.1) as people type them in a line: a/b, √(x), indices raised and lowered.
 * Sums, roots, fractions, brackets, matrices and accents keep their order; what is not known is read through to its letters.
 */
export class FormulaReader {
  private readonly stack: Open[] = [];
  /** Indices that what is read now stands in, outermost first. */
  readonly indices: ('sup' | 'sub')[] = [];

  /** True when the element is one of a formula and is done with; runs and their letters are left to the caller. */
  open(name: string, attributes: Record<string, string>, add: AddWords): boolean {
    if (!name.startsWith('m:')) return false;
    const local = localName(name);
    const value = attributes['m:val'] ?? '';
    const parent = this.stack.at(-1);
    if (local === 'chr' || local === 'begChr') this.setSign(value);
    else if (local === 'endChr') this.setEnd(value);
    if (local === 'r' || local === 't' || local === 'rPr') return false;
    this.stack.push({ local, sign: undefined, end: local === 'd' ? ')' : '', parts: 0 });
    if (local === 'oMath') return true;
    if (parent && (local === 'e' || local === 'mr')) this.openPart(parent, local, add);
    else if (local === 'num') add('(');
    else if (local === 'den') add('/(');
    else if (local === 'sup' || local === 'deg') this.indices.push('sup');
    else if (local === 'sub' || local === 'lim') this.indices.push('sub');
    return true;
  }

  close(name: string, add: AddWords): boolean {
    if (!name.startsWith('m:')) return false;
    const local = localName(name);
    if (local === 'r' || local === 't' || local === 'rPr') return false;
    const own = this.stack.pop();
    if (local === 'num' || local === 'den' || (local === 'rad' && own)) add(')');
    else if (local === 'd') add(own?.end ?? ')');
    else if (local === 'naryPr') add(this.stack.at(-1)?.sign ?? '∫');
    else if (['sup', 'deg', 'sub', 'lim'].includes(local)) this.indices.pop();
    return true;
  }

  private openPart(parent: Open, local: string, add: AddWords): void {
    const first = parent.parts++ === 0;
    if (parent.local === 'rad') add('√(');
    else if (parent.local === 'd') add(first ? (parent.sign ?? '(') : '|');
    else if (parent.local === 'mr' && !first) add(', ');
    else if (parent.local === 'eqArr' && !first) add('; ');
    else if (local === 'mr' && !first) add('; ');
  }

  /** The property that says a sign stands inside the properties of what it is the sign of. */
  private setSign(sign: string): void {
    const of = this.stack.at(-2);
    if (of) of.sign = sign;
  }

  private setEnd(sign: string): void {
    const of = this.stack.at(-2);
    if (of) of.end = sign;
  }
}
