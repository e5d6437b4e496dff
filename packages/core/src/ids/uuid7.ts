/** Two hexadecimal digits by byte. */
const HEX = Array.from({ length: 256 }, (_, byte) => byte.toString(16).padStart(2, '0'));

/**
 * Builds a UUID version 7 (RFC 9562) from a time in milliseconds and ten random bytes.
 * Pure: the caller brings clock and randomness. Ids made in later milliseconds sort after earlier ones.
 */
export function buildUuid7(now: number, random: Uint8Array): string {
  if (random.length < 10) throw new RangeError(`A UUID needs 10 random bytes, got ${random.length}`);
  const time = Math.trunc(now).toString(16).padStart(12, '0').slice(-12);
  const at = (index: number) => HEX[random[index]!]!;
  const version = HEX[0x70 | (random[0]! & 0x0f)]!;
  const variant = HEX[0x80 | (random[2]! & 0x3f)]!;
  return `${time.slice(0, 8)}-${time.slice(8)}-${version}${at(1)}-${variant}${at(3)}-${at(4)}${at(5)}${at(6)}${at(7)}${at(8)}${at(9)}`;
}
