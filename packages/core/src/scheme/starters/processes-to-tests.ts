import { withSentences } from '../scheme-part.js';
import type { Scheme } from '../scheme.js';
import { requirementFields, testFields } from './shared-fields.js';
import type { Starter } from './starter.js';

const scheme: Scheme = withSentences({
  layers: [
    { id: 'goals', label: 'Goals and rules' },
    { id: 'processes', label: 'Processes' },
    { id: 'decisions', label: 'Decisions' },
    { id: 'means', label: 'Systems' },
    { id: 'trials', label: 'Tests' },
  ],
  kinds: [
    { id: 'goal', label: 'Goal', plural: 'Goals', layer: 'goals', fields: requirementFields, roles: ['need'] },
    {
      id: 'duty',
      label: 'Rule to keep',
      plural: 'Rules to keep',
      layer: 'goals',
      roles: ['requirement'],
      fields: [...requirementFields, { id: 'clause', label: 'Clause', type: 'text' }],
    },
    { id: 'hint', label: 'Hint', plural: 'Hints', layer: 'goals', fields: [], informative: true, roles: ['information'] },
    { id: 'role', label: 'Role', plural: 'Roles', layer: 'processes', fields: [], informative: true, roles: ['actor'] },
    { id: 'process', label: 'Process', plural: 'Processes', layer: 'processes', fields: [], roles: ['function'] },
    { id: 'task', label: 'Task', plural: 'Tasks', layer: 'processes', fields: [], roles: ['useCase'] },
    {
      id: 'decision',
      label: 'Decision',
      plural: 'Decisions',
      layer: 'decisions',
      fields: [{ id: 'knowledge', label: 'Decided by', type: 'text' }],
    },
    { id: 'ruleRow', label: 'Decision rule', plural: 'Decision rules', layer: 'decisions', fields: [] },
    { id: 'area', label: 'Area', plural: 'Areas', layer: 'means', fields: [], informative: true, roles: ['package'] },
    { id: 'system', label: 'System', plural: 'Systems', layer: 'means', fields: [], roles: ['component'] },
    { id: 'message', label: 'Message', plural: 'Messages', layer: 'means', fields: [], roles: ['interface'] },
    { id: 'trial', label: 'Test', plural: 'Tests', layer: 'trials', fields: testFields, roles: ['test'] },
  ],
  linkKinds: [
    { id: 'follows', phrase: 'follows from', reverse: 'leads to', role: 'derives', fromKinds: ['duty', 'goal'], toKinds: ['goal', 'duty'], upstream: 'to' },
    {
      id: 'serves',
      phrase: 'serves',
      reverse: 'is served by',
      role: 'satisfies',
      fromKinds: ['process', 'task', 'decision'],
      toKinds: ['goal', 'duty'],
      upstream: 'to',
    },
    {
      id: 'consistsOf',
      phrase: 'consists of',
      reverse: 'is part of',
      role: 'composes',
      fromKinds: ['process', 'decision'],
      toKinds: ['process', 'task', 'ruleRow'],
      upstream: 'from',
    },
    { id: 'asks', phrase: 'asks for', reverse: 'is asked for by', fromKinds: ['process', 'task', 'decision'], toKinds: ['decision'], upstream: 'from' },
    {
      id: 'doneBy',
      phrase: 'is done by',
      reverse: 'does',
      role: 'allocates',
      fromKinds: ['process', 'task', 'decision'],
      toKinds: ['role', 'system'],
      upstream: 'from',
    },
    {
      id: 'worksWith',
      phrase: 'works with',
      reverse: 'is worked with by',
      role: 'depends',
      fromKinds: ['process', 'task', 'decision', 'system', 'message', 'area', 'role'],
      toKinds: ['process', 'task', 'decision', 'system', 'message', 'area', 'role'],
      upstream: 'to',
    },
    {
      id: 'tries',
      phrase: 'tries',
      reverse: 'is tried by',
      role: 'verifies',
      fromKinds: ['trial'],
      toKinds: ['goal', 'duty', 'process', 'task', 'decision', 'ruleRow', 'system'],
      upstream: 'to',
    },
  ],
  rules: [
    rule(
      'served',
      'Rules and goals served',
      ['goal', 'duty'],
      [
        ['serves', 'in'],
        ['follows', 'in'],
      ],
      2,
      ['process', 'task', 'decision'],
    ),
    rule('supported', 'Tasks with somebody to do them', ['task'], [['doneBy', 'out']], 1, ['role', 'system']),
    rule('asked', 'Decisions that are asked for', ['decision'], [['asks', 'in']], 1, ['process', 'task', 'decision']),
    rule(
      'tried',
      'Rules to keep, tried',
      ['duty'],
      [
        ['tries', 'in'],
        ['serves', 'in'],
      ],
      2,
      ['trial'],
    ),
    rule('decided', 'Decision rules tried', ['ruleRow'], [['tries', 'in']], 1, ['trial']),
  ],
  verification: { of: { kinds: ['duty'] }, verifies: 'tries', derives: 'follows', waivedBy: 'tried' },
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

export const processesToTests: Starter = {
  id: 'processesToTests',
  label: 'Processes and decisions',
  explains: 'Goals and rules to keep, the processes that serve them, the decisions within, and tests of every rule.',
  scheme,
  collections: [
    {
      key: 'goals',
      name: 'Goals and rules',
      holds: 'specification',
      prefix: 'GOAL',
      kind: 'duty',
      outline: [
        { heading: 'Goals', note: 'What the work is for, and how one sees that it is reached.' },
        { heading: 'Rules to keep', note: 'Laws, contracts and house rules, sentence by sentence, with the clause they stand in.' },
      ],
    },
    {
      key: 'roles',
      name: 'Roles',
      holds: 'model',
      prefix: 'ROLE',
      kind: 'role',
      shared: true,
      outline: [{ heading: 'Who takes part', note: 'Roles, not names. All processes share this list.' }],
    },
    {
      key: 'processes',
      name: 'Processes',
      holds: 'model',
      prefix: 'PRO',
      kind: 'process',
      outline: [
        { heading: 'Processes', note: 'Each from what sets it off to what it leaves behind, with its tasks below.' },
        { heading: 'Exceptions', note: 'What is done when something is late, missing or wrong.' },
      ],
    },
    {
      key: 'decisions',
      name: 'Decisions',
      holds: 'model',
      prefix: 'DEC',
      kind: 'decision',
      outline: [{ heading: 'Decisions', note: 'What is decided, from what, by which rules; one item a rule where each must be tried.' }],
    },
    {
      key: 'systems',
      name: 'Systems',
      holds: 'model',
      prefix: 'SYS',
      kind: 'system',
      outline: [{ heading: 'Systems and messages', note: 'What carries the processes, and what passes between.' }],
    },
    {
      key: 'trials',
      name: 'Tests',
      holds: 'tests',
      prefix: 'TST',
      kind: 'trial',
      outline: [{ heading: 'Paths and rules', note: 'One test a path through a process, or a rule of a decision: what comes in, what must come out.' }],
    },
  ],
};
