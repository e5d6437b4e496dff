import type { LinkRole } from '@coomb/core';

/** What each part of a trace is in SysML, for link kinds that a file has no relation for yet. */
export const USUAL_RELATIONS: Partial<Record<LinkRole, { type: string; stereotypes: string[] }>> = {
  satisfies: { type: 'Abstraction', stereotypes: ['Satisfy'] },
  verifies: { type: 'Abstraction', stereotypes: ['Verify'] },
  refines: { type: 'Abstraction', stereotypes: ['Refine'] },
  derives: { type: 'Abstraction', stereotypes: ['DeriveReqt'] },
  allocates: { type: 'Abstraction', stereotypes: ['Allocate'] },
  realises: { type: 'Realization', stereotypes: [] },
  depends: { type: 'Dependency', stereotypes: [] },
};
