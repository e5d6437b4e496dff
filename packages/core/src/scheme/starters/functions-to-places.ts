import { withSentences } from '../scheme-part.js';
import type { Scheme } from '../scheme.js';
import { requirementFields, testFields } from './shared-fields.js';
import type { Starter } from './starter.js';

const scheme: Scheme = withSentences({
  layers: [
    { id: 'asks', label: 'Requirements' },
    { id: 'doings', label: 'Functions' },
    { id: 'logical', label: 'Logical components' },
    { id: 'hardware', label: 'Hardware' },
    { id: 'places', label: 'Places' },
    { id: 'checks', label: 'Tests' },
  ],
  kinds: [
    { id: 'ask', label: 'Requirement', plural: 'Requirements', layer: 'asks', fields: requirementFields, roles: ['requirement', 'need'] },
    { id: 'note', label: 'Note', plural: 'Notes', layer: 'asks', fields: [], informative: true, roles: ['information'] },
    { id: 'doing', label: 'Function', plural: 'Functions', layer: 'doings', fields: [], roles: ['function', 'useCase'] },
    { id: 'actor', label: 'Actor', plural: 'Actors', layer: 'doings', fields: [], informative: true, roles: ['actor'] },
    { id: 'logic', label: 'Logical component', plural: 'Logical components', layer: 'logical', fields: [], roles: ['component'] },
    { id: 'exchange', label: 'Exchange', plural: 'Exchanges', layer: 'logical', fields: [], roles: ['interface'] },
    { id: 'group', label: 'Group', plural: 'Groups', layer: 'logical', fields: [], informative: true, roles: ['package'] },
    {
      id: 'unit',
      label: 'Hardware unit',
      plural: 'Hardware units',
      layer: 'hardware',
      roles: ['part'],
      fields: [
        { id: 'mass', label: 'Mass', type: 'number', unit: 'kg' },
        { id: 'power', label: 'Power', type: 'number', unit: 'W' },
        { id: 'supplier', label: 'Supplier', type: 'text' },
      ],
    },
    { id: 'socket', label: 'Connection', plural: 'Connections', layer: 'hardware', fields: [], roles: ['port'] },
    {
      id: 'place',
      label: 'Place',
      plural: 'Places',
      layer: 'places',
      fields: [{ id: 'surroundings', label: 'Surroundings', type: 'text' }],
    },
    { id: 'check', label: 'Test', plural: 'Tests', layer: 'checks', fields: testFields, roles: ['test'] },
  ],
  linkKinds: [
    { id: 'comesFrom', phrase: 'comes from', reverse: 'gives rise to', role: 'derives', fromKinds: ['ask'], toKinds: ['ask'], upstream: 'to' },
    { id: 'answers', phrase: 'answers', reverse: 'is answered by', role: 'satisfies', fromKinds: ['doing', 'logic', 'unit'], toKinds: ['ask'], upstream: 'to' },
    { id: 'detailed', phrase: 'details', reverse: 'is detailed by', role: 'refines', fromKinds: ['doing'], toKinds: ['doing', 'ask'], upstream: 'to' },
    {
      id: 'performs',
      phrase: 'is performed by',
      reverse: 'performs',
      role: 'allocates',
      fromKinds: ['doing'],
      toKinds: ['logic', 'unit', 'actor'],
      upstream: 'from',
    },
    {
      id: 'realises',
      phrase: 'realises',
      reverse: 'is realised by',
      role: 'realises',
      fromKinds: ['logic', 'unit', 'place'],
      toKinds: ['doing', 'logic', 'unit'],
      upstream: 'to',
    },
    {
      id: 'uses',
      phrase: 'is an instance of',
      reverse: 'has the instance',
      role: 'types',
      fromKinds: ['unit', 'socket'],
      toKinds: ['logic', 'exchange'],
      upstream: 'to',
    },
    {
      id: 'needsOther',
      phrase: 'relies on',
      reverse: 'is relied on by',
      role: 'depends',
      fromKinds: ['doing', 'logic', 'exchange', 'unit', 'socket', 'group', 'actor'],
      toKinds: ['doing', 'logic', 'exchange', 'unit', 'socket', 'group', 'actor'],
      upstream: 'to',
    },
    {
      id: 'shows',
      phrase: 'shows',
      reverse: 'is shown by',
      role: 'verifies',
      fromKinds: ['check'],
      toKinds: ['ask', 'doing', 'logic', 'unit'],
      upstream: 'to',
    },
  ],
  rules: [
    rule('answered', 'Requirements answered', ['ask'], 'answers', 'in', ['doing', 'logic', 'unit']),
    rule('thought', 'Functions thought through', ['doing'], 'realises', 'in', ['logic']),
    rule('built', 'Logical components built', ['logic'], 'realises', 'in', ['unit']),
    rule('placed', 'Hardware placed', ['unit'], 'realises', 'in', ['place']),
    rule('shown', 'Requirements shown', ['ask'], 'shows', 'in', ['check']),
  ],
  verification: { of: { kinds: ['ask'] }, verifies: 'shows', derives: 'comesFrom', waivedBy: 'shown' },
});

function rule(id: string, label: string, of: string[], linkKind: string, direction: 'in' | 'out', reach: string[]): Scheme['rules'][number] {
  return { id, label, sentence: '', of: { kinds: of }, along: [{ linkKind, direction }], steps: 1, atLeast: 1, reach: { kinds: reach } };
}

export const functionsToPlaces: Starter = {
  id: 'functionsToPlaces',
  label: 'Functions to places',
  explains: 'What is done, thought as components, built as hardware, standing in places: each layer realised by the next.',
  scheme,
  collections: [
    {
      key: 'asks',
      name: 'Requirements',
      holds: 'specification',
      prefix: 'REQ',
      kind: 'ask',
      outline: [{ heading: 'What is asked', note: 'What the whole must do and bear, one sentence an item, each answered by a function or a component.' }],
    },
    {
      key: 'actors',
      name: 'Actors',
      holds: 'model',
      prefix: 'ACT',
      kind: 'actor',
      shared: true,
      outline: [{ heading: 'People and neighbours', note: 'Who and what stands around the system. All parts of the project share this list.' }],
    },
    {
      key: 'doings',
      name: 'Functions',
      holds: 'model',
      prefix: 'FUN',
      kind: 'doing',
      outline: [
        { heading: 'Normal work', note: 'What is done when all goes well, each function named by a verb and what it acts on.' },
        { heading: 'When something fails', note: 'What is done to notice a failure, to limit it and to go on.' },
      ],
    },
    {
      key: 'logical',
      name: 'Logical components',
      holds: 'model',
      prefix: 'LOG',
      kind: 'logic',
      outline: [{ heading: 'Components', note: 'What performs the functions, before anybody says of what it is built. Each realises at least one function.' }],
    },
    {
      key: 'hardware',
      name: 'Hardware',
      holds: 'model',
      prefix: 'HW',
      kind: 'unit',
      outline: [{ heading: 'Units', note: 'What is bought or built, with mass and power. Each realises a logical component.' }],
    },
    {
      key: 'places',
      name: 'Places',
      holds: 'model',
      prefix: 'PLC',
      kind: 'place',
      outline: [{ heading: 'Sites and rooms', note: 'Where the units stand, with what they meet there: water, heat, people.' }],
    },
    {
      key: 'checks',
      name: 'Tests',
      holds: 'tests',
      prefix: 'TST',
      kind: 'check',
      outline: [{ heading: 'Tests', note: 'What is done to show that a requirement holds, and what must be seen.' }],
    },
  ],
};
