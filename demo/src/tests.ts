import { numberChapters } from './requirements.js';

export interface TestSpec {
  reference: string;
  title: string;
  steps: string;
  expected: string;
  kind: string;
  tags: string;
  verifies: string;
}

/** Titles of requirements verified together by one test; the rest of the chosen ones get a test of their own. */
const together: [title: string, requirements: string[]][] = [
  ['Hold level through a dry week', ['Pool level band', 'Rate of level change', 'Share the opening']],
  ['Set level limits', ['Set level range', 'Refuse other set levels']],
  ['Simulated flood of 1998 pattern', ['Flood mode', 'Open ahead of the flood', 'No closing on a rising flood', 'Surge below the weir']],
  ['Full opening against the clock', ['Full opening']],
  ['Forecast service off', ['Forecast input', 'Forecast missing']],
  ['Weir drive over full travel', ['Weir gate travel', 'Speed', 'Soft start and stop']],
  ['Lock drive over full travel', ['Lock gate travel', 'Speed']],
  ['Drive under rated load', ['Weir gate load', 'Hold without power']],
  ['Overload and obstacle', ['Overload cut-off', 'Obstacle']],
  ['Lock passage up and down', ['Cycle time', 'Equal levels before opening', 'Never both gates', 'Paddle sequence']],
  ['Signals in all states', ['Entry signals', 'Signal failure']],
  ['Gauge against reference staff', ['Level accuracy', 'Sampling', 'Time stamp']],
  ['Doubtful readings', ['Out of range', 'Jump', 'Frozen value', 'Doubt is visible']],
  ['Two sensors disagree', ['Disagreement', 'Replacement value']],
  ['Order without second confirmation', ['Two-step orders', 'Order expiry']],
  ['Two controllers, one site', ['One in charge', 'Hand over']],
  ['Night without control room', ['Go on alone', 'Notice the loss', 'Come back']],
  ['Mains failure in flood', ['Battery', 'Generator', 'Change-over']],
  ['Forged and repeated orders', ['Refuse strangers', 'Replay']],
  ['Alerting drill', ['Siren', 'Messages', 'Telephone', 'All clear']],
];

const alone = [
  'Stop on order',
  'End switches',
  'Ice',
  'Motor temperature',
  'Noise',
  'Hand crank',
  'One order at a time',
  'Somebody in the way',
  'Night closing',
  'Flood closing',
  'Passage counter',
  'Flow accuracy',
  'Frost',
  'Both sites on one screen',
  'Age of data',
  'Trend',
  'Response',
  'Alarm order',
  'Alarm flood',
  'Sign-in',
  'Emergency stop',
  'Record of orders',
  'Forecast error',
  'Lead time',
  'Stage by person',
  'Silent test',
  'Local wins',
  'Barrier',
  'Warning before movement',
  'Watchdog',
  'Battery state',
  'Clock',
  'Running hours',
  'Gate movements',
  'Export',
  'Pass flow',
  'Low water',
  'Drift wood',
];

/** Tests that verify nothing yet: an honest gap. */
const purposeless = ['Walk round the site', 'Cable labels', 'Spare key'];

export function buildTests(): TestSpec[] {
  const byTitle = new Map(
    numberChapters().flatMap((chapter) => chapter.sections.flatMap((section) => section.requirements.map((one) => [one.title, one] as const))),
  );
  const all: [string, string[]][] = [
    ...together,
    ...alone.map((title): [string, string[]] => [title, [title]]),
    ...purposeless.map((title): [string, string[]] => [title, []]),
  ];
  return all.map(([title, titles], index) => {
    const verified = titles.map((one) => byTitle.get(one)!);
    const onRig = index % 3 === 0;
    return {
      reference: `TC-${String(index + 1).padStart(3, '0')}`,
      title: titles.length === 1 && titles[0] === title ? `${title} as specified` : title,
      steps: [
        '1. Bring the installation to its start state and note the readings.',
        ...verified.map((one, at) => `${at + 2}. Provoke the case of ${one.reference}: ${one.title.toLowerCase()}.`),
        `${verified.length + 2}. Compare the record with the expected outcome.`,
      ].join('\n'),
      expected: verified.length ? verified.map((one) => one.text).join(' ') : 'Nothing unusual is found.',
      kind: titles.length > 2 ? 'System test' : onRig ? 'Rig test' : 'Site test',
      tags: [onRig ? 'rig' : 'site', ...(verified.some((one) => one.priority === 'High') ? ['safety'] : [])].join(', '),
      verifies: verified.map((one) => one.reference).join(', '),
    };
  });
}
