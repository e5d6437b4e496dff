/**
 * Builds a UUID version 7 (RFC 9562) from a time in milliseconds and ten random bytes.
 * Pure: the caller brings clock and randomness. Ids made in later milliseconds sort after earlier ones.
 */
export function buildUuid7(now: number, random: Uint8Array): string {
  if (random.length < 10) throw new RangeError(`A UUID needs 10 random bytes, got ${random.length}`);
  const bytes = new Uint8Array(16);
  const time = BigInt(Math.trunc(now));
  for (let i = 0; i < 6; i++) bytes[i] = Number((time >> BigInt(40 - 8 * i)) & 0xffn);
  bytes.set(random.subarray(0, 10), 6);
  bytes[6] = 0x70 | (bytes[6]! & 0x0f);
  bytes[8] = 0x80 | (bytes[8]! & 0x3f);
  const hex = Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
