import { AsyncLocalStorage } from 'node:async_hooks';

export interface LeftOut {
  count: number;
  /** The first: its name and line. */
  first: string;
}

const told = new AsyncLocalStorage<LeftOut>();

/** Runs `work` and tells what of the XML that it read was no character of XML. */
export async function withLeftOut<T>(work: () => Promise<T>): Promise<{ result: T; leftOut: LeftOut }> {
  const leftOut = { count: 0, first: '' };
  const result = await told.run(leftOut, work);
  return { result, leftOut };
}

const RAW = /[\0-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]/g;
const REFERENCE = /&#(?:x([0-9a-fA-F]{1,6})|([0-9]{1,7}));/g;
/** A character reference may be cut by the end of a piece. */
const BEGUN = /&[#\w]{0,9}$/;

/** XML 1.0, 2.2. */
function isAllowed(code: number): boolean {
  return (
    code === 9 || code === 10 || code === 13 || (code >= 0x20 && code <= 0xd7ff) || (code >= 0xe000 && code <= 0xfffd) || (code >= 0x10000 && code <= 0x10ffff)
  );
}

/** Leaves characters out that XML does not allow, written as they are or as references, piece by piece, and remembers how many. */
export function openXmlFilter(): (piece: string, isLast?: boolean) => string {
  let held = '';
  let line = 1;
  return (piece, isLast = false) => {
    const text = held + piece;
    const begun = isLast ? undefined : BEGUN.exec(text);
    held = begun ? begun[0] : '';
    const whole = begun ? text.slice(0, begun.index) : text;
    const drop = (code: number, at: number) => {
      const store = told.getStore();
      if (!store) return;
      store.count++;
      store.first ||= `U+${code.toString(16).toUpperCase().padStart(4, '0')} in line ${line + (whole.slice(0, at).match(/\n/g)?.length ?? 0)}`;
    };
    let clean = whole;
    if (RAW.test(whole)) {
      clean = whole.replace(RAW, (found, at: number) => {
        drop(found.charCodeAt(0), at);
        return '';
      });
    }
    RAW.lastIndex = 0;
    if (clean.includes('&#'))
      clean = clean.replace(REFERENCE, (found, hexadecimal: string | undefined, decimal: string | undefined, at: number) => {
        const code = hexadecimal === undefined ? Number(decimal) : Number.parseInt(hexadecimal, 16);
        if (isAllowed(code)) return found;
        drop(code, at);
        return '';
      });
    for (let at = whole.indexOf('\n'); at >= 0; at = whole.indexOf('\n', at + 1)) line++;
    return clean;
  };
}
