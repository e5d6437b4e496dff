import type { Field } from '../../fields/field.js';

export const requirementFields: Field[] = [
  { id: 'priority', label: 'Priority', type: 'choice', options: ['High', 'Medium', 'Low'], role: 'priority' },
  {
    id: 'method',
    label: 'Verification method',
    type: 'choices',
    options: ['Test', 'Analysis', 'Inspection', 'Demonstration'],
    role: 'method',
  },
  { id: 'standing', label: 'Standing', type: 'choice', options: ['Draft', 'Under discussion', 'Agreed'], role: 'state' },
  { id: 'rationale', label: 'Rationale', type: 'text', role: 'rationale' },
  { id: 'owner', label: 'Owner', type: 'person', role: 'owner' },
];

export const testFields: Field[] = [
  { id: 'steps', label: 'Steps', type: 'rich', meaning: true, role: 'steps' },
  { id: 'expected', label: 'Expected outcome', type: 'text', meaning: true, role: 'expected' },
  { id: 'testKind', label: 'Kind of test', type: 'text', role: 'testKind' },
  { id: 'tags', label: 'Tags', type: 'choices' },
];
