import type { Scheme } from '@coomb/core';
import type { ImportContext } from './build-import.js';
import { ProjectContents } from '../project-state/project-contents.js';

/** An import into a project that holds nothing yet. */
export function emptyImport(scheme: Scheme): ImportContext {
  const collection = {
    id: '',
    projectId: '',
    revision: 1,
    withdrawn: false,
    name: '',
    holds: 'specification',
    prefix: 'NEW',
    kind: scheme.kinds[0]!.id,
    rank: 0,
    setId: null,
  } as const;
  return {
    state: {
      id: '',
      seq: 0,
      scheme,
      items: [],
      contents: new ProjectContents(() => scheme, [], []),
      byReference: new Map(),
      nodeOf: new Map(),
      nextNumber: () => 1,
      meaningOf: ({ meaningSeq }) => meaningSeq,
      linkKindIndex: (id) => scheme.linkKinds.findIndex((kind) => kind.id === id),
      graph: { findLinks: () => [], to: new Uint32Array(0) },
    },
    person: '',
    now: '',
    newId: () => '',
    collection,
    sourceId: '',
    pictureAddress: new Map(),
  };
}
