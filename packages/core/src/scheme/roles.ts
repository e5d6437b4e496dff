import type { FieldRole } from '../fields/field-roles.js';
import { kindRoles, type KindRole, type LinkRole } from './role-names.js';
import type { Field } from '../fields/field.js';
import type { Kind, LinkKind, Scheme } from './scheme.js';

/** Kinds that play a part, in the scheme's order; retired ones are not asked. */
export function kindsOfRole(scheme: Scheme, role: KindRole): Kind[] {
  return scheme.kinds.filter((kind) => !kind.retired && kind.roles?.includes(role));
}

/** The first kind that plays a part, else one of those that stand in for it. */
export function findKindOfRole(scheme: Scheme, role: KindRole): Kind | undefined {
  const [own] = kindsOfRole(scheme, role);
  if (own) return own;
  for (const other of kindRoles[role].else) {
    const [found] = kindsOfRole(scheme, other);
    if (found) return found;
  }
  return undefined;
}

/** The kind of what comes in from files when nothing says more: the requirement, else the first that needs coverage. A scheme has at least one kind. */
export function getUsualKind(scheme: Scheme): Kind {
  const kinds = scheme.kinds.filter((kind) => !kind.retired);
  const usual = findKindOfRole(scheme, 'requirement') ?? kinds.find((kind) => !kind.informative) ?? kinds[0];
  if (!usual) throw new Error('The scheme has no kind');
  return usual;
}

/** Whether items of a kind play a part. */
export function hasRole(scheme: Scheme, kind: string, role: KindRole): boolean {
  return scheme.kinds.some((one) => one.id === kind && one.roles?.includes(role));
}

/** Kinds of what results belong to: those that play the test, and those that verification counts as tests. */
export function testKinds(scheme: Scheme): string[] {
  const verifying = scheme.linkKinds.find((kind) => kind.id === scheme.verification.verifies)?.fromKinds ?? [];
  return [...new Set([...kindsOfRole(scheme, 'test').map((kind) => kind.id), ...verifying])];
}

/** Link kinds that play a part, in the scheme's order; retired ones are not asked. */
export function linkKindsOfRole(scheme: Scheme, role: LinkRole): LinkKind[] {
  return scheme.linkKinds.filter((kind) => !kind.retired && kind.role === role);
}

/** The field of a kind that plays a part. */
export function findFieldOfRole(kind: Kind | undefined, role: FieldRole): Field | undefined {
  return kind?.fields.find((field) => field.role === role);
}
