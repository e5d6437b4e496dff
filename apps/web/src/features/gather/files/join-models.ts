const MODEL = /\.(?:xmi|uml|xml)$/i;
/** More is not looked through for names of other files. */
const MOST_BYTES = 64 * 1024 * 1024;

/** Which files belong to one model: those that name each other, directly or over others. Groups of one are left out. */
export function findModelGroups(files: readonly { name: string; text: string }[]): number[][] {
  const group = files.map((_, index) => index);
  const rootOf = (index: number): number => (group[index] === index ? index : (group[index] = rootOf(group[index]!)));
  files.forEach(({ text }, index) =>
    files.forEach((other, at) => {
      if (at === index) return;
      // References name a file and a place in it, perhaps with blanks written as %20.
      const names = [other.name, encodeURI(other.name)];
      if (names.some((name) => text.includes(`${name}#`))) group[rootOf(at)] = rootOf(index);
    }),
  );
  const groups = new Map<number, number[]>();
  files.forEach((_, index) => groups.set(rootOf(index), [...(groups.get(rootOf(index)) ?? []), index]));
  return [...groups.values()].filter((members) => members.length > 1);
}

/** Files as they are handed in: those of one model together, as an archive named after the one that no other names. */
export async function joinModels(files: readonly File[]): Promise<File[]> {
  const models = files.filter((file) => MODEL.test(file.name) && file.size <= MOST_BYTES);
  if (models.length < 2) return [...files];
  const read = await Promise.all(models.map(async (file) => ({ name: file.name, text: await file.text() })));
  const groups = findModelGroups(read);
  if (groups.length === 0) return [...files];
  const { zipSync } = await import('fflate');
  const joined = new Set<File>();
  const archives = await Promise.all(
    groups.map(async (members) => {
      const parts: Record<string, Uint8Array> = {};
      for (const index of members) {
        joined.add(models[index]!);
        parts[models[index]!.name] = new Uint8Array(await models[index]!.arrayBuffer());
      }
      const named = (index: number) => members.some((other) => other !== index && read[other]!.text.includes(`${read[index]!.name}#`));
      const main = members.find((index) => !named(index)) ?? members[0]!;
      return new File([new Uint8Array(zipSync(parts))], `${models[main]!.name.replace(MODEL, '')} and ${members.length - 1} more.zip`, {
        type: 'application/zip',
      });
    }),
  );
  return [...archives, ...files.filter((file) => !joined.has(file))];
}
