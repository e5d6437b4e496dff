import { type AllowedLink, newRecord } from '@coomb/core';
import { z } from 'zod';
import { shiftIsHeld } from '../../shared/ui/shift-held';
import { parseJson } from '../../shared/read-json';

const schema = z.record(z.string(), z.object({ linkKind: z.string(), reversed: z.boolean() }));
const keyOf = (project: string) => `coomb.kinds.${project}`;

function readAll(project: string): Record<string, { linkKind: string; reversed: boolean }> {
  const parsed = schema.safeParse(parseJson(localStorage.getItem(keyOf(project))));
  return Object.assign(newRecord(), parsed.success ? parsed.data : {});
}

/** The kind of link that was chosen last for two kinds of items, where it may still be made. */
export function recallKind(project: string, left: string, right: string, allowed: readonly AllowedLink[]): AllowedLink | undefined {
  const all = readAll(project);
  const [known, turned] = [all[`${left} ${right}`], all[`${right} ${left}`]];
  const wanted = known ?? (turned && { ...turned, reversed: !turned.reversed });
  return wanted && allowed.find(({ linkKind, reversed }) => linkKind.id === wanted.linkKind && reversed === wanted.reversed);
}

/** The kind that needs no asking: the only one, or the one that was chosen last; with Shift held it is asked for all the same. */
export function settledKind(project: string, left: string, right: string, allowed: readonly AllowedLink[]): AllowedLink | undefined {
  if (allowed.length <= 1) return allowed[0];
  return shiftIsHeld() ? undefined : recallKind(project, left, right, allowed);
}

export function rememberKind(project: string, left: string, right: string, { linkKind, reversed }: AllowedLink): void {
  const all = readAll(project);
  delete all[`${right} ${left}`];
  all[`${left} ${right}`] = { linkKind: linkKind.id, reversed };
  localStorage.setItem(keyOf(project), JSON.stringify(all));
}
