/** Attributes of relations: the use of an end in which a link holds only, as references from a root down, parted by slashes. */
export const useNames = { from: 'Coomb.SourceUse', to: 'Coomb.TargetUse' } as const;
