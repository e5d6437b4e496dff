/** The structure and behaviour of Larkbeck Weir. Names are ids as well; `satisfies` names requirements by title. */
export interface BlockSpec {
  name: string;
  text: string;
  ports?: string[];
  /** Name, type, default. */
  values?: [name: string, type: string, is?: string][];
  parts?: [name: string, type: string][];
}

export const packages: { name: string; blocks: BlockSpec[] }[] = [
  {
    name: 'Sites',
    blocks: [
      {
        name: 'Larkbeck Installation',
        text: 'Everything that controls the river between Otterby and Larkbeck.',
        parts: [
          ['weir', 'Weir Site'],
          ['lock', 'Lock Site'],
          ['control', 'Control Room'],
          ['warning', 'Flood Warning Service'],
          ['gauges', 'Gauge Network'],
        ],
      },
      {
        name: 'Weir Site',
        text: 'Three gates, their drives and the weir control.',
        ports: ['mains', 'data'],
        parts: [
          ['gateA', 'Weir Gate'],
          ['gateB', 'Weir Gate'],
          ['gateC', 'Weir Gate'],
          ['weirControl', 'Weir Control'],
          ['weirPower', 'Site Power'],
        ],
      },
      {
        name: 'Lock Site',
        text: 'Lock chamber with upper and lower gates.',
        ports: ['mains', 'data'],
        parts: [
          ['upperGate', 'Lock Gate'],
          ['lowerGate', 'Lock Gate'],
          ['lockControl', 'Lock Control'],
          ['lockPower', 'Site Power'],
          ['chamber', 'Chamber Sensors'],
        ],
      },
    ],
  },
  {
    name: 'Gates',
    blocks: [
      {
        name: 'Weir Gate',
        text: 'Vertical lift gate with 3.40 m travel.',
        parts: [
          ['drive', 'Gate Drive'],
          ['position', 'Position Sensor'],
        ],
      },
      {
        name: 'Lock Gate',
        text: 'Mitre gate with 1.10 m travel of the drive.',
        parts: [
          ['drive', 'Gate Drive'],
          ['position', 'Position Sensor'],
          ['paddle', 'Paddle'],
        ],
      },
      {
        name: 'Gate Drive',
        text: 'Electric spindle drive; the same at both sites.',
        ports: ['power', 'order', 'status'],
        values: [
          ['travel', 'Metre'],
          ['load', 'Kilonewton'],
          ['speed', 'Metre', '0.02'],
        ],
        parts: [
          ['motor', 'Drive Motor'],
          ['brake', 'Holding Brake'],
          ['endSwitch', 'End Switch'],
          ['torque', 'Torque Limiter'],
        ],
      },
      { name: 'Drive Motor', text: 'Asynchronous motor with temperature sensor.' },
      { name: 'Holding Brake', text: 'Spring-applied; holds without power.' },
      { name: 'End Switch', text: 'Mechanical switch at each end of travel.' },
      { name: 'Torque Limiter', text: 'Measures torque and cuts the motor off.' },
      { name: 'Position Sensor', text: 'Absolute encoder on the spindle.' },
      { name: 'Paddle', text: 'Filling and emptying paddle of the lock.' },
    ],
  },
  {
    name: 'Control',
    blocks: [
      {
        name: 'Weir Control',
        text: 'Regulates the pool level.',
        ports: ['levels', 'orders', 'forecast'],
        parts: [
          ['weirSite', 'Site Controller'],
          ['regulator', 'Level Regulator'],
        ],
      },
      {
        name: 'Lock Control',
        text: 'Runs lock passages.',
        ports: ['orders', 'signals'],
        parts: [
          ['lockSite', 'Site Controller'],
          ['sequencer', 'Passage Sequencer'],
          ['lamps', 'Signal Lamps'],
        ],
      },
      {
        name: 'Site Controller',
        text: 'Fail-safe controller with watchdog and local panel.',
        ports: ['field', 'network'],
        parts: [
          ['watchdog', 'Watchdog'],
          ['panel', 'Local Panel'],
          ['journal', 'Journal'],
        ],
      },
      { name: 'Level Regulator', text: 'Computes the total opening and shares it between gates.' },
      { name: 'Passage Sequencer', text: 'Steps of a lock passage with their interlocks.' },
      { name: 'Signal Lamps', text: 'Red and green lamps at both approaches.' },
      { name: 'Chamber Sensors', text: 'See boats and persons between the gates.' },
      { name: 'Watchdog', text: 'Brings outputs to stop when the program halts.' },
      { name: 'Local Panel', text: 'Moves gates while the key switch is at local.' },
      { name: 'Journal', text: 'Keeps movements, readings and orders.' },
      {
        name: 'Control Room',
        text: 'Where the duty controller watches and steers both sites.',
        ports: ['network'],
        parts: [
          ['overview', 'Overview Screen'],
          ['orders', 'Order Desk'],
          ['alarms', 'Alarm List'],
          ['archive', 'Archive'],
        ],
      },
      { name: 'Overview Screen', text: 'Levels, flows, positions and alarms of both sites.' },
      { name: 'Order Desk', text: 'Signed-in, two-step orders.' },
      { name: 'Alarm List', text: 'Alarms by urgency, grouped by cause.' },
      { name: 'Archive', text: 'Ten years of readings and orders.' },
    ],
  },
  {
    name: 'Measurement and warning',
    blocks: [
      {
        name: 'Gauge Network',
        text: 'Five gauges and their plausibility checks.',
        ports: ['readings'],
        parts: [
          ['upstream', 'Level Gauge'],
          ['pool', 'Level Gauge'],
          ['downstream', 'Level Gauge'],
          ['flow', 'Flow Gauge'],
          ['checks', 'Plausibility Check'],
        ],
      },
      { name: 'Level Gauge', text: 'Radar and pressure sensor.' },
      { name: 'Flow Gauge', text: 'Acoustic flow measurement.' },
      { name: 'Plausibility Check', text: 'Marks doubtful readings and offers replacements.' },
      {
        name: 'Flood Warning Service',
        text: 'Forecast, stages and alerting.',
        ports: ['forecast', 'alerts'],
        parts: [
          ['forecaster', 'Forecaster'],
          ['stages', 'Stage Logic'],
          ['siren', 'Siren'],
          ['messenger', 'Messenger'],
        ],
      },
      { name: 'Forecaster', text: 'Six-hour level forecast at Larkbeck bridge.' },
      { name: 'Stage Logic', text: 'Watch, prepare, leave.' },
      { name: 'Siren', text: 'Three sirens in the village.' },
      { name: 'Messenger', text: 'Text messages and telephone calls.' },
      { name: 'Fish Pass', text: 'Vertical-slot pass with counter.' },
    ],
  },
  {
    name: 'Power and network',
    blocks: [
      {
        name: 'Site Power',
        text: 'Mains, battery and generator.',
        parts: [
          ['battery', 'Battery'],
          ['generator', 'Generator'],
          ['changeOver', 'Change-over Switch'],
        ],
      },
      { name: 'Battery', text: '24 hours for controller and gauges.' },
      { name: 'Generator', text: 'Starts within a minute.' },
      { name: 'Change-over Switch', text: 'Between mains and generator.' },
      { name: 'Radio Link', text: 'Second path to the control room.' },
      { name: 'Fibre Link', text: 'First path to the control room.' },
    ],
  },
];

export const actors = ['Duty Controller', 'Boat Crew', 'Resident', 'Maintenance Crew', 'Flood Authority'];

/** Use cases with the requirements (by title) they refine. */
export const useCases: [name: string, refines: string[]][] = [
  ['Hold the pool level', ['Pool level band', 'Share the opening']],
  ['Pass a flood', ['Flood mode', 'Full opening', 'No closing on a rising flood']],
  ['Pass the lock', ['Cycle time', 'Never both gates', 'Entry signals']],
  ['Warn residents', ['Lead time', 'Siren', 'Messages']],
  ['Take over locally', ['Local panel', 'Local wins']],
  ['Move a gate from the control room', ['Two-step orders', 'One in charge']],
  ['Service a gate drive', ['Swap time', 'Lock out']],
  ['Explain a night', ['Replay a night', 'Gate movements']],
];

/** Who takes part in which use case. */
export const takesPart: [actor: string, useCase: string][] = [
  ['Duty Controller', 'Hold the pool level'],
  ['Duty Controller', 'Pass a flood'],
  ['Duty Controller', 'Move a gate from the control room'],
  ['Boat Crew', 'Pass the lock'],
  ['Resident', 'Warn residents'],
  ['Maintenance Crew', 'Service a gate drive'],
  ['Maintenance Crew', 'Take over locally'],
  ['Flood Authority', 'Warn residents'],
];

/** Functions, what performs them, and the requirements (by title) they satisfy. */
export const functions: [name: string, performer: string, satisfies: string[]][] = [
  [
    'Regulate level',
    'Level Regulator',
    ['Pool level band', 'Rate of level change', 'Wind set-up', 'Dead band at night', 'Share the opening', 'Set level range'],
  ],
  ['Detect flood', 'Weir Control', ['Flood mode', 'Forecast input', 'Forecast missing']],
  ['Open for flood', 'Weir Control', ['Open ahead of the flood', 'Full opening', 'No closing on a rising flood', 'Surge below the weir']],
  ['Move gate', 'Gate Drive', ['Weir gate travel', 'Lock gate travel', 'Speed', 'Soft start and stop', 'Stop on order']],
  ['Guard gate movement', 'Torque Limiter', ['Overload cut-off', 'Obstacle']],
  ['Run lock passage', 'Passage Sequencer', ['One order at a time', 'Equal levels before opening', 'Never both gates', 'Paddle sequence', 'Cycle time']],
  ['Show lock state', 'Signal Lamps', ['Entry signals', 'Signal failure']],
  ['Measure level', 'Level Gauge', ['Level accuracy', 'Sampling', 'Time stamp', 'Frost']],
  ['Measure flow', 'Flow Gauge', ['Flow accuracy']],
  ['Check readings', 'Plausibility Check', ['Out of range', 'Jump', 'Frozen value', 'Disagreement', 'Replacement value', 'Doubt is visible']],
  ['Forecast level', 'Forecaster', ['Forecast horizon', 'Forecast error']],
  ['Decide stage', 'Stage Logic', ['Three stages', 'Lead time', 'Stage by person']],
  ['Alert residents', 'Messenger', ['Messages', 'Telephone', 'All clear']],
  ['Sound siren', 'Siren', ['Siren', 'Silent test']],
  ['Show overview', 'Overview Screen', ['Both sites on one screen', 'Age of data', 'Trend', 'Response']],
  ['Handle orders', 'Order Desk', ['Two-step orders', 'Order expiry', 'Sign-in', 'One in charge', 'Hand over', 'Emergency stop']],
  ['List alarms', 'Alarm List', ['Language of alarms', 'Alarm order', 'Alarm flood']],
  ['Keep records', 'Archive', ['Record of orders', 'Readings', 'Export']],
  ['Count fish', 'Fish Pass', ['Fish counter']],
];

/** Components and the requirements (by title) they satisfy directly. */
export const satisfied: [block: string, titles: string[]][] = [
  ['Holding Brake', ['Hold without power']],
  ['End Switch', ['End switches']],
  ['Drive Motor', ['Motor temperature', 'Weir gate load', 'Lock gate load', 'Noise']],
  ['Watchdog', ['Watchdog', 'Single fault']],
  ['Local Panel', ['Local panel', 'Local wins', 'Hand crank']],
  ['Journal', ['Gate movements', 'Come back', 'Running hours']],
  ['Site Controller', ['Go on alone', 'Notice the loss', 'Warning before movement', 'Refuse strangers', 'Replay', 'Battery state', 'Flood closing']],
  ['Chamber Sensors', ['Somebody in the way']],
  ['Battery', ['Battery']],
  ['Generator', ['Generator', 'Fuel']],
  ['Change-over Switch', ['Change-over']],
  ['Radio Link', ['Second path']],
  ['Fibre Link', ['Encryption']],
  ['Weir Control', ['Pass flow', 'Attraction flow', 'Low water', 'Seasonal set level', 'Refuse other set levels', 'Leave flood mode']],
];

/** Which block needs which. */
export const dependencies: [from: string, to: string][] = [
  ['Weir Control', 'Gauge Network'],
  ['Weir Control', 'Flood Warning Service'],
  ['Lock Control', 'Weir Control'],
  ['Flood Warning Service', 'Gauge Network'],
  ['Control Room', 'Weir Control'],
  ['Control Room', 'Lock Control'],
  ['Site Controller', 'Site Power'],
  ['Gate Drive', 'Site Power'],
  ['Control Room', 'Radio Link'],
  ['Control Room', 'Fibre Link'],
  ['Lock Control', 'Chamber Sensors'],
  ['Forecaster', 'Level Gauge'],
];
