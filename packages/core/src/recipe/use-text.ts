/** The other end of a link as a text names it, and the uses of either end in which the link holds only: names of items from a root down. */
export interface UseTarget {
  target: string;
  /** Ends with the target itself. */
  otherUse: string[] | null;
  /** Ends with the item that the link is told of. */
  ownUse: string[] | null;
}

const SEPARATOR = '/';

/** "SYS-017(MOD-001/MOD-024/MOD-035)": as MOD-001's MOD-035, linked with SYS-017. A use of the other end stands in its place: "MOD-001/MOD-024/MOD-035". */
export function writeUseTarget({ target, otherUse, ownUse }: UseTarget): string {
  return (otherUse ? otherUse.join(SEPARATOR) : target) + (ownUse ? `(${ownUse.join(SEPARATOR)})` : '');
}

/** Undefined where a text tells of no use. */
export function readUseTarget(text: string): UseTarget | undefined {
  const [, front, inside] = /^([^()]+)(?:\(([^()]+)\))?$/.exec(text.trim()) ?? [];
  if (front === undefined) return undefined;
  const [otherUse, ownUse] = [pathOf(front), pathOf(inside)];
  if (!otherUse && !ownUse) return undefined;
  return { target: otherUse?.at(-1) ?? front.trim(), otherUse, ownUse };
}

function pathOf(text: string | undefined): string[] | null {
  const names = (text ?? '').split(SEPARATOR).map((name) => name.trim());
  return names.length > 1 && names.every(Boolean) ? names : null;
}
