/**
 * `other` when it counts nodes as the outline does; nothing while one of them is older than a restoring of the data: both are being fetched again.
 */
export function ofSameLife<T extends { life: string }>(outline: { life: string } | undefined, other: T | undefined): T | undefined {
  return outline && other?.life === outline.life ? other : undefined;
}
