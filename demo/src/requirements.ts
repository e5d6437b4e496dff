/** How a chapter writes its requirements: in a table, as numbered sentences with labels, or under headings. */
export type Style = 'table' | 'inline' | 'headed';
/** Title, sentence, priority (H, M, L), verification method (T, A, I, D), need it derives from (number, or 0). */
export type Requirement = [title: string, text: string, priority: string, method: string, need: number];
export interface Chapter {
  title: string;
  intro: string;
  style: Style;
  sections: { title: string; requirements: Requirement[] }[];
}

export const chapters: Chapter[] = [
  {
    title: 'Level regulation',
    intro: 'The weir holds the pool level between Larkbeck and Otterby. Levels are in metres above the local datum.',
    style: 'table',
    sections: [
      {
        title: 'Normal flow',
        requirements: [
          ['Pool level band', 'The weir control shall hold the pool level within 0.05 m of the set level while the river flow is below 40 m³/s.', 'H', 'T', 2],
          ['Set level range', 'The weir control shall accept set levels from 11.80 m to 12.60 m.', 'M', 'T', 2],
          ['Refuse other set levels', 'The weir control shall refuse a set level outside the range and say which range is allowed.', 'M', 'T', 6],
          ['Rate of level change', 'The weir control shall change the pool level by no more than 0.10 m per hour in normal operation.', 'H', 'T', 5],
          ['Seasonal set level', 'The weir control shall change to the winter set level on 1 November and to the summer set level on 1 April.', 'L', 'T', 2],
          ['Wind set-up', 'The weir control shall filter level readings so that waves shorter than 20 s do not move a gate.', 'M', 'A', 12],
          ['Dead band at night', 'Between 22:00 and 06:00 the weir control shall move gates only when the level leaves a band of 0.10 m.', 'L', 'T', 12],
          [
            'Share the opening',
            'The weir control shall share the total opening between the three gates so that no two differ by more than 0.15 m.',
            'M',
            'T',
            1,
          ],
        ],
      },
      {
        title: 'Flood flow',
        requirements: [
          ['Flood mode', 'The weir control shall enter flood mode when the upstream gauge rises above 13.20 m or the flow exceeds 120 m³/s.', 'H', 'T', 1],
          ['Open ahead of the flood', 'In flood mode the weir control shall lower the pool level by up to 0.30 m before the flood peak arrives.', 'H', 'A', 1],
          ['Full opening', 'The weir control shall bring all gates to full opening within 12 minutes of a full-opening order.', 'H', 'T', 1],
          ['No closing on a rising flood', 'In flood mode the weir control shall close no gate while the upstream level rises.', 'H', 'T', 1],
          ['Leave flood mode', 'The weir control shall leave flood mode only on confirmation by the duty controller.', 'M', 'D', 6],
          [
            'Surge below the weir',
            'The weir control shall raise the downstream level by no more than 0.20 m in any ten minutes unless the duty controller overrides it.',
            'H',
            'T',
            5,
          ],
          ['Forecast input', 'The weir control shall take the inflow forecast of the flood-warning service every 15 minutes.', 'M', 'T', 1],
          [
            'Forecast missing',
            'When the forecast is older than 60 minutes the weir control shall go on with measured levels alone and tell the duty controller.',
            'M',
            'T',
            8,
          ],
        ],
      },
    ],
  },
  {
    title: 'Gate drives',
    intro: 'Weir and lock use the same gate drive with different travel and load. Requirements name the site where they differ.',
    style: 'inline',
    sections: [
      {
        title: 'Movement',
        requirements: [
          ['Weir gate travel', 'The gate drive at Larkbeck weir shall move a gate over its full travel of 3.40 m.', 'H', 'T', 1],
          ['Lock gate travel', 'The gate drive at Otterby lock shall move a gate over its full travel of 1.10 m.', 'H', 'T', 4],
          ['Weir gate load', 'The gate drive at Larkbeck weir shall move a gate against a head of 2.80 m.', 'H', 'A', 1],
          ['Lock gate load', 'The gate drive at Otterby lock shall move a gate against a head of 0.20 m.', 'M', 'A', 4],
          ['Speed', 'The gate drive shall move at 0.30 m per minute, within 10 percent, at any permitted load.', 'M', 'T', 1],
          ['Soft start and stop', 'The gate drive shall reach and leave its speed within 2 s to 4 s.', 'M', 'T', 12],
          ['Stop on order', 'The gate drive shall stop within 0.5 s of a stop order, and stand within 0.02 m.', 'H', 'T', 5],
          ['Hold without power', 'The gate drive shall hold its position without power.', 'H', 'T', 7],
        ],
      },
      {
        title: 'Protection',
        requirements: [
          ['Overload cut-off', 'The gate drive shall stop when the torque exceeds 120 percent of its rating for more than 1 s.', 'H', 'T', 5],
          ['Obstacle', 'The gate drive shall stop and reverse by 0.05 m when it meets an obstacle while closing.', 'H', 'T', 5],
          ['End switches', 'The gate drive shall stop at each end of its travel by a switch that is independent of the position sensor.', 'H', 'T', 5],
          ['Ice', 'The gate drive shall refuse to move a gate reported as frozen, unless the duty controller confirms.', 'M', 'T', 5],
          ['Motor temperature', 'The gate drive shall report its motor temperature and stop above 130 °C.', 'M', 'T', 14],
          ['Noise', 'The gate drive shall be no louder than 55 dB(A) at 10 m between 22:00 and 06:00.', 'L', 'T', 12],
          ['Hand crank', 'The gate drive shall be movable by hand crank by one person, with the motor locked out while the crank is in place.', 'H', 'D', 7],
        ],
      },
    ],
  },
  {
    title: 'Otterby lock',
    intro: 'Crews pass the lock by themselves in daylight; at night and in flood it is closed.',
    style: 'headed',
    sections: [
      {
        title: 'Passage',
        requirements: [
          ['Cycle time', 'The lock control shall bring a boat from one level to the other within 14 minutes at a head of 1.60 m.', 'M', 'T', 4],
          ['One order at a time', 'The lock control shall carry out one passage order at a time and queue up to four more.', 'M', 'T', 4],
          [
            'Equal levels before opening',
            'The lock control shall open a lock gate only when the levels on both sides differ by less than 0.05 m.',
            'H',
            'T',
            5,
          ],
          ['Never both gates', 'The lock control shall never have an upper and a lower gate open at the same time.', 'H', 'T', 5],
          ['Paddle sequence', 'The lock control shall open the filling paddles in two steps so that moored boats move less than 0.50 m.', 'M', 'T', 5],
          ['Somebody in the way', 'The lock control shall stop a closing gate when the chamber sensors see a boat or person between the gates.', 'H', 'T', 5],
        ],
      },
      {
        title: 'Signals and closing',
        requirements: [
          ['Entry signals', 'The lock control shall show red, red and green, or green at both approaches, according to the state of the lock.', 'H', 'T', 15],
          ['Signal failure', 'The lock control shall show that it is closed when any signal lamp has failed.', 'M', 'T', 15],
          ['Night closing', 'The lock control shall finish a passage under way and then close half an hour after sunset.', 'M', 'T', 4],
          ['Flood closing', 'The lock control shall close the lock when the weir control enters flood mode.', 'H', 'T', 5],
          ['Help call', 'The lock shall have a help call to the control room on each side of the chamber.', 'M', 'I', 5],
          ['Passage counter', 'The lock control shall count boats by direction and hour.', 'L', 'T', 11],
        ],
      },
    ],
  },
  {
    title: 'Gauges',
    intro: 'Five gauges measure level; two of them also measure flow.',
    style: 'table',
    sections: [
      {
        title: 'Measurement',
        requirements: [
          ['Level accuracy', 'Each gauge shall measure level within 0.01 m from 10.00 m to 15.00 m.', 'H', 'T', 8],
          ['Flow accuracy', 'The flow gauges shall measure flow within 5 percent between 2 m³/s and 250 m³/s.', 'H', 'A', 8],
          ['Sampling', 'Each gauge shall sample its level once a second and report a mean every 10 s.', 'M', 'T', 8],
          ['Time stamp', 'Each reading shall carry its time in UTC, within 1 s.', 'M', 'T', 11],
          ['Two principles', 'The upstream gauge shall measure by two sensors of different principle.', 'H', 'I', 8],
          ['Frost', 'Each gauge shall keep its accuracy from −15 °C to 40 °C.', 'M', 'A', 8],
        ],
      },
      {
        title: 'Plausibility',
        requirements: [
          ['Out of range', 'The gauge network shall mark a reading outside 9.50 m to 15.50 m as doubtful.', 'H', 'T', 8],
          ['Jump', 'The gauge network shall mark a reading that jumps by more than 0.15 m in 10 s as doubtful.', 'M', 'T', 8],
          ['Frozen value', 'The gauge network shall mark a gauge whose reading has not changed for 30 minutes as doubtful.', 'M', 'T', 8],
          ['Disagreement', 'The gauge network shall report when the two sensors of the upstream gauge differ by more than 0.05 m for a minute.', 'H', 'T', 8],
          ['Replacement value', 'The gauge network shall offer a replacement value from neighbouring gauges while a gauge is doubtful.', 'M', 'A', 8],
          ['Doubt is visible', 'The gauge network shall pass the mark "doubtful" on with every use of the reading.', 'H', 'I', 8],
        ],
      },
    ],
  },
  {
    title: 'Control room',
    intro: 'One duty controller watches both sites, by day from the control room, by night also from home.',
    style: 'inline',
    sections: [
      {
        title: 'Overview',
        requirements: [
          ['Both sites on one screen', 'The control room shall show levels, flows, gate positions and alarms of both sites on one screen.', 'H', 'I', 6],
          ['Age of data', 'The control room shall show a reading older than 30 s as old.', 'H', 'T', 6],
          ['Trend', 'The control room shall show the last 48 hours of each level beside the forecast.', 'M', 'T', 8],
          ['Response', 'The control room shall show a change at a site within 2 s.', 'M', 'T', 6],
          ['Language of alarms', 'Each alarm shall say what happened, where, since when, and what to do.', 'M', 'I', 6],
          ['Alarm order', 'The control room shall list alarms by urgency, then by time.', 'M', 'T', 6],
          ['Alarm flood', 'The control room shall group alarms of one cause so that no more than ten new lines appear in a minute.', 'M', 'T', 6],
        ],
      },
      {
        title: 'Orders',
        requirements: [
          ['Two-step orders', 'The control room shall carry out an order to a gate only after a second, separate confirmation.', 'H', 'T', 13],
          ['Order expiry', 'An order that is not confirmed within 30 s shall expire.', 'M', 'T', 13],
          ['Sign-in', 'The control room shall take orders only from persons signed in with two factors.', 'H', 'T', 13],
          ['One in charge', 'The control room shall give control of a site to one person at a time and show who it is.', 'H', 'T', 13],
          ['Hand over', 'The control room shall hand control over only when the receiving person accepts it.', 'M', 'D', 6],
          ['Emergency stop', 'The control room shall stop all movement at a site within 1 s of the emergency stop.', 'H', 'T', 5],
          ['Record of orders', 'The control room shall record every order with person, time, reason and outcome for ten years.', 'M', 'T', 11],
        ],
      },
    ],
  },
  {
    title: 'Flood warning',
    intro: 'The flood-warning service reaches residents by siren, telephone and text message.',
    style: 'table',
    sections: [
      {
        title: 'Forecast and stages',
        requirements: [
          ['Forecast horizon', 'The flood-warning service shall forecast the level at Larkbeck bridge for the next six hours.', 'H', 'A', 3],
          ['Forecast error', 'The two-hour forecast shall be within 0.15 m in nine of ten floods of the test set.', 'H', 'A', 3],
          ['Three stages', 'The flood-warning service shall know three stages: watch, prepare and leave.', 'M', 'I', 3],
          ['Lead time', 'The flood-warning service shall raise the stage "leave" at least 40 minutes before the bridge level reaches 14.10 m.', 'H', 'A', 3],
          [
            'Stage by person',
            'The flood-warning service shall let the duty controller raise a stage at any time and lower it after confirmation.',
            'M',
            'T',
            3,
          ],
          ['Why this stage', 'The flood-warning service shall show which readings led to a stage.', 'M', 'T', 11],
        ],
      },
      {
        title: 'Alerting',
        requirements: [
          ['Siren', 'The siren shall sound within 20 s of the stage "leave".', 'H', 'T', 3],
          ['Messages', 'The flood-warning service shall hand over all text messages within 3 minutes of a stage.', 'H', 'T', 3],
          ['Telephone', 'The flood-warning service shall call every registered household until somebody answers, up to five times.', 'M', 'T', 3],
          ['Register', 'Residents shall be able to register and remove their number by themselves.', 'L', 'D', 3],
          ['All clear', 'The flood-warning service shall send an all-clear to everyone who was alerted.', 'M', 'T', 3],
          ['Silent test', 'The flood-warning service shall test every siren silently once a week and report the outcome.', 'M', 'T', 10],
          ['Loud test', 'The flood-warning service shall announce a loud siren test two days ahead.', 'L', 'D', 12],
        ],
      },
    ],
  },
  {
    title: 'Safety and fallback',
    intro: 'The site controller keeps the river safe by itself when the control room cannot be reached.',
    style: 'headed',
    sections: [
      {
        title: 'Loss of connection',
        requirements: [
          ['Go on alone', 'The site controller shall go on regulating by local gauges for at least 72 hours without the control room.', 'H', 'T', 7],
          ['Notice the loss', 'The site controller shall notice a lost connection within 10 s.', 'H', 'T', 7],
          ['Second path', 'The site controller shall reach the control room by two paths that share no cable.', 'H', 'I', 7],
          ['Come back', 'After a lost connection the site controller shall send all readings it kept, in order of time.', 'M', 'T', 11],
        ],
      },
      {
        title: 'Local control',
        requirements: [
          ['Local panel', 'Each site shall have a panel to move each gate while the key switch is at local.', 'H', 'D', 7],
          ['Local wins', 'While the key switch is at local the site controller shall refuse orders from the control room.', 'H', 'T', 5],
          ['Barrier', 'The walkway to a gate drive shall be closed by a barrier that stops the drive when it opens.', 'H', 'T', 5],
          ['Warning before movement', 'The site controller shall sound a warning for 10 s before a gate moves.', 'H', 'T', 5],
          ['Watchdog', 'The site controller shall bring its outputs to stop within 1 s when its program halts.', 'H', 'T', 5],
          ['Single fault', 'No single fault shall open a gate without an order.', 'H', 'A', 5],
          ['Fault list', 'The site controller shall detect the faults of the fault list within the times given there.', 'M', 'A', 5],
        ],
      },
    ],
  },
  {
    title: 'Power and communication',
    intro: 'Mains supply comes by overhead line and fails in storms.',
    style: 'table',
    sections: [
      {
        title: 'Power',
        requirements: [
          ['Battery', 'The battery shall keep the site controller and gauges running for 24 hours.', 'H', 'T', 7],
          ['Generator', 'The generator shall take the load of two gate drives within 60 s of a mains failure.', 'H', 'T', 7],
          ['Fuel', 'The generator shall run for 48 hours without refuelling.', 'M', 'A', 7],
          ['Change-over', 'Changing between mains and generator shall interrupt no movement under way.', 'M', 'T', 7],
          ['Battery state', 'The site controller shall report the remaining running time of the battery.', 'M', 'T', 7],
          ['Lightning', 'The installation shall withstand a lightning stroke 100 m away.', 'M', 'A', 7],
        ],
      },
      {
        title: 'Communication',
        requirements: [
          ['Encryption', 'All traffic between sites and control room shall be encrypted and mutually authenticated.', 'H', 'I', 13],
          ['Refuse strangers', 'The site controller shall drop messages that are not signed by the control room.', 'H', 'T', 13],
          ['Replay', 'The site controller shall refuse an order it has carried out before.', 'H', 'T', 13],
          ['Bandwidth', 'The connection shall need no more than 64 kbit/s for one site.', 'L', 'T', 14],
          ['Clock', 'All clocks shall agree within 0.5 s.', 'M', 'T', 11],
        ],
      },
    ],
  },
  {
    title: 'Maintenance and records',
    intro: 'Two people maintain both sites.',
    style: 'inline',
    sections: [
      {
        title: 'Maintenance',
        requirements: [
          ['Above water', 'Every part that needs service more than once in ten years shall be reachable above water.', 'M', 'I', 10],
          ['Swap time', 'Two persons shall be able to change a gate drive motor within four hours.', 'M', 'D', 10],
          ['Running hours', 'The site controller shall count running hours and starts of each gate drive.', 'L', 'T', 10],
          ['Remind', 'The control room shall remind of maintenance that is due within 30 days.', 'L', 'T', 10],
          ['Lock out', 'A gate drive shall be lockable against starting by up to four padlocks.', 'H', 'I', 5],
          ['Spare parts', 'Every electronic part shall have a second source or be kept in stock for ten years.', 'L', 'I', 14],
        ],
      },
      {
        title: 'Records',
        requirements: [
          ['Gate movements', 'The site controller shall record every gate movement with its cause.', 'H', 'T', 11],
          ['Readings', 'The control room shall keep all readings for ten years.', 'M', 'A', 11],
          ['Replay a night', 'The control room shall replay any 24 hours with readings, orders and alarms on one time line.', 'M', 'D', 11],
          ['Export', 'The control room shall export readings and orders as comma-separated values.', 'L', 'T', 11],
          ['Tamper evidence', 'A change of a record shall be evident.', 'M', 'T', 13],
        ],
      },
    ],
  },
  {
    title: 'Fish pass and surroundings',
    intro: 'The vertical-slot fish pass lies at the left bank; its flow depends on the pool level.',
    style: 'table',
    sections: [
      {
        title: 'Fish pass',
        requirements: [
          ['Pass flow', 'The weir control shall keep 0.6 m³/s to 0.9 m³/s in the fish pass from March to June and from September to November.', 'M', 'T', 9],
          ['Attraction flow', 'The weir control shall prefer the gate next to the fish pass when it opens one gate only.', 'L', 'T', 9],
          ['Fish counter', 'The fish pass shall count fish by length and direction.', 'L', 'T', 9],
          ['Low water', 'Below a river flow of 4 m³/s the weir control shall serve the fish pass before the lock.', 'M', 'T', 9],
        ],
      },
      {
        title: 'Surroundings',
        requirements: [
          ['Light', 'Lamps at the weir shall not shine on the water between 22:00 and 06:00 unless a person is detected.', 'L', 'I', 9],
          ['Viewing platform', 'The viewing platform shall be fenced to a height of 1.20 m and show the present level and flow.', 'L', 'I', 16],
          ['Oil', 'Gate drives above water shall use oil that is readily biodegradable.', 'M', 'I', 9],
          [
            'Drift wood',
            'The weir control shall tell the duty controller when drift wood raises the level difference at a gate by more than 0.10 m.',
            'M',
            'T',
            10,
          ],
        ],
      },
    ],
  },
];

export interface NumberedRequirement {
  reference: string;
  title: string;
  text: string;
  priority: string;
  method: string;
  need: string;
}

const priorities: Record<string, string> = { H: 'High', M: 'Medium', L: 'Low' };
const methods: Record<string, string> = { T: 'Test', A: 'Analysis', I: 'Inspection', D: 'Demonstration' };

/** Chapters with references given in reading order, as the document carries them. */
export interface NumberedChapter {
  title: string;
  intro: string;
  style: Style;
  sections: { title: string; requirements: NumberedRequirement[] }[];
}

export function numberChapters(): NumberedChapter[] {
  let number = 0;
  return chapters.map((chapter) => ({
    ...chapter,
    sections: chapter.sections.map((section) => ({
      title: section.title,
      requirements: section.requirements.map(([title, text, priority, method, need]) => ({
        reference: `SYS-${String(++number).padStart(3, '0')}`,
        title,
        text,
        priority: priorities[priority]!,
        method: methods[method]!,
        need: need ? `NEED-${String(need).padStart(3, '0')}` : '',
      })),
    })),
  }));
}
