/**
 * Members under the key each is given, keys in the order of their first member, members in the order handed in. It does what `Map.groupBy`
 * does, which Node 20 lacks.
 */
export function groupBy<T, K>(members: Iterable<T>, keyOf: (member: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const member of members) addToGroup(groups, keyOf(member), member);
  return groups;
}

/** Puts a member at the end of the group under the key, in a time that does not grow with the group. */
export function addToGroup<T, K>(groups: Map<K, T[]>, key: K, member: T): void {
  const group = groups.get(key);
  if (group) group.push(member);
  else groups.set(key, [member]);
}
