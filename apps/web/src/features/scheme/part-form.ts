import type { SchemeEdit } from '@coomb/contract';
import type { Scheme, SchemeIssue, SchemeSort } from '@coomb/core';
import type { Project } from '../../shared/live/project-queries';

/** What the form of a part gets: the part and all others as they would be, and how to change them. */
export interface PartFormProps<S extends SchemeSort> {
  part: Extract<SchemeEdit, { sort: S }>;
  parts: readonly SchemeEdit[];
  scheme: Scheme;
  collections: Project['collections'];
  issues: readonly SchemeIssue[];
  change: (parts: readonly SchemeEdit[]) => void;
  /** Gives a choice of a field another name, here and on the items. */
  rename: (field: string, from: string, to: string) => void;
}
