import { hasRole } from '@coomb/core';
import type { Project } from './project-queries';

/** The collection that most work begins with: the first whose items are required, else the first specification, else the first. */
export function findRequirements({ scheme, collections }: Pick<Project, 'scheme' | 'collections'>): Project['collections'][number] | undefined {
  const specifications = collections.filter((one) => one.holds === 'specification');
  return specifications.find((one) => hasRole(scheme, one.kind, 'requirement')) ?? specifications[0] ?? collections[0];
}
