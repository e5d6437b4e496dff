import { withSentences } from '../scheme-part.js';
import type { Scheme } from '../scheme.js';
import { requirementFields, testFields } from './shared-fields.js';
import type { Starter } from './starter.js';

const scheme: Scheme = withSentences({
  layers: [
    { id: 'system', label: 'System requirements' },
    { id: 'high', label: 'High-level requirements' },
    { id: 'low', label: 'Low-level requirements' },
    { id: 'code', label: 'Code units' },
    { id: 'tests', label: 'Tests' },
  ],
  kinds: [
    { id: 'given', label: 'System requirement', plural: 'System requirements', layer: 'system', fields: requirementFields, roles: ['need'] },
    {
      id: 'highLevel',
      label: 'High-level requirement',
      plural: 'High-level requirements',
      layer: 'high',
      roles: ['requirement'],
      fields: [...requirementFields, { id: 'derivedOwn', label: 'Derived here', type: 'yesNo' }],
    },
    { id: 'remark', label: 'Remark', plural: 'Remarks', layer: 'high', fields: [], informative: true, roles: ['information'] },
    { id: 'outside', label: 'Neighbour', plural: 'Neighbours', layer: 'high', fields: [], informative: true, roles: ['actor'] },
    { id: 'lowLevel', label: 'Low-level requirement', plural: 'Low-level requirements', layer: 'low', fields: requirementFields, roles: ['requirement'] },
    { id: 'module', label: 'Module', plural: 'Modules', layer: 'code', fields: [], roles: ['component', 'interface', 'function'] },
    { id: 'folder', label: 'Folder', plural: 'Folders', layer: 'code', fields: [], informative: true, roles: ['package'] },
    {
      id: 'codeUnit',
      label: 'Code unit',
      plural: 'Code units',
      layer: 'code',
      roles: ['part'],
      fields: [
        { id: 'file', label: 'File', type: 'text' },
        { id: 'level', label: 'Level', type: 'choice', options: ['A', 'B', 'C', 'D'] },
      ],
    },
    { id: 'test', label: 'Test', plural: 'Tests', layer: 'tests', fields: testFields, roles: ['test'] },
  ],
  linkKinds: [
    {
      id: 'tracesTo',
      phrase: 'traces to',
      reverse: 'is carried into',
      role: 'derives',
      fromKinds: ['highLevel', 'lowLevel'],
      toKinds: ['given', 'highLevel'],
      upstream: 'to',
    },
    {
      id: 'implements',
      phrase: 'implements',
      reverse: 'is implemented by',
      role: 'satisfies',
      fromKinds: ['codeUnit', 'module'],
      toKinds: ['lowLevel', 'highLevel'],
      upstream: 'to',
    },
    { id: 'holds', phrase: 'holds', reverse: 'is held by', role: 'composes', fromKinds: ['module'], toKinds: ['codeUnit'], upstream: 'from' },
    {
      id: 'calls',
      phrase: 'calls',
      reverse: 'is called by',
      role: 'depends',
      fromKinds: ['module', 'codeUnit', 'folder'],
      toKinds: ['module', 'codeUnit', 'folder', 'outside'],
      upstream: 'to',
    },
    {
      id: 'tests',
      phrase: 'tests',
      reverse: 'is tested by',
      role: 'verifies',
      fromKinds: ['test'],
      toKinds: ['given', 'highLevel', 'lowLevel', 'codeUnit', 'module'],
      upstream: 'to',
    },
  ],
  rules: [
    rule('carried', 'System requirements carried on', ['given'], [['tracesTo', 'in']], 1, ['highLevel']),
    rule('worked', 'High-level requirements worked out', ['highLevel'], [['tracesTo', 'in']], 1, ['lowLevel']),
    rule('coded', 'Low-level requirements coded', ['lowLevel'], [['implements', 'in']], 1, ['codeUnit', 'module']),
    rule(
      'grounded',
      'Code with a reason',
      ['codeUnit'],
      [
        ['implements', 'out'],
        ['holds', 'in'],
      ],
      2,
      ['lowLevel', 'highLevel'],
    ),
    rule('highTested', 'High-level requirements tested', ['highLevel'], [['tests', 'in']], 1, ['test']),
    rule('lowTested', 'Low-level requirements tested', ['lowLevel'], [['tests', 'in']], 1, ['test']),
  ],
  verification: { of: { kinds: ['highLevel', 'lowLevel'] }, verifies: 'tests', derives: null, waivedBy: 'lowTested' },
});

function rule(
  id: string,
  label: string,
  of: string[],
  along: [linkKind: string, direction: 'in' | 'out'][],
  steps: number,
  reach: string[],
): Scheme['rules'][number] {
  return {
    ...{ id, label, sentence: '', of: { kinds: of }, steps, atLeast: 1, reach: { kinds: reach } },
    along: along.map(([linkKind, direction]) => ({ linkKind, direction })),
  };
}

export const softwareLevels: Starter = {
  id: 'softwareLevels',
  label: 'Software in two levels',
  explains: 'High- and low-level requirements, the code units that implement them, and tests of each level.',
  scheme,
  collections: [
    {
      key: 'given',
      name: 'System requirements',
      holds: 'specification',
      prefix: 'SYS',
      kind: 'given',
      outline: [
        {
          heading: 'Given to the software',
          note: 'What the system leaves to the software, as it was agreed. Import it where it is kept; it is not written here.',
        },
      ],
    },
    {
      key: 'neighbours',
      name: 'Neighbours',
      holds: 'model',
      prefix: 'NBR',
      kind: 'outside',
      shared: true,
      outline: [{ heading: 'Devices and programs', note: 'What the software talks to. All parts of the project share this list.' }],
    },
    {
      key: 'high',
      name: 'High-level requirements',
      holds: 'specification',
      prefix: 'HLR',
      kind: 'highLevel',
      outline: [
        {
          heading: 'Behaviour',
          note: 'What the software does, seen from outside. Each traces to a system requirement, or says that it was derived here, and why.',
        },
        { heading: 'Data and timing', note: 'Ranges, units, rates and reserves.' },
      ],
    },
    {
      key: 'low',
      name: 'Low-level requirements',
      holds: 'specification',
      prefix: 'LLR',
      kind: 'lowLevel',
      outline: [{ heading: 'By module', note: 'What each module does, exactly enough that code can be written from it without asking.' }],
    },
    {
      key: 'code',
      name: 'Code units',
      holds: 'model',
      prefix: 'CU',
      kind: 'codeUnit',
      outline: [{ heading: 'Modules', note: 'One item a function or file, with its level. They can be imported from a list or a model.' }],
    },
    {
      key: 'tests',
      name: 'Tests',
      holds: 'tests',
      prefix: 'T',
      kind: 'test',
      outline: [
        { heading: 'Of high-level requirements', note: 'On the target or close to it: normal ranges first, then what lies beyond them.' },
        { heading: 'Of low-level requirements', note: 'By module: every requirement, its borders and its wrong inputs.' },
      ],
    },
  ],
};
