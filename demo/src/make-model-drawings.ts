import { type Led, makeDiagram, type Placed } from './diagram.js';
import { dependencies, packages, takesPart } from './model.js';

type IdOf = (prefix: string, name: string) => string;

const box = (element: string, x: number, y: number, width = 170, height = 80, more: Partial<Placed> = {}): Placed => ({
  element,
  x,
  y,
  width,
  height,
  ...more,
});

/** The drawings of the model, as its tool placed them. */
export function makeModelDrawings(idOf: IdOf): string[] {
  const block = (name: string, x: number, y: number, width = 180, height = 96) => box(idOf('b', name), x, y, width, height);
  const drive = idOf('b', 'Gate Drive');
  const between = (names: string[]) =>
    dependencies.flatMap(([from, to], index) =>
      names.includes(from) && names.includes(to) ? [{ element: `_dep_${index}`, from: idOf('b', from), to: idOf('b', to) }] : [],
    );
  const control = [
    'Control Room',
    'Weir Control',
    'Lock Control',
    'Gauge Network',
    'Flood Warning Service',
    'Site Power',
    'Site Controller',
    'Radio Link',
    'Fibre Link',
  ];
  const use = (name: string, x: number, y: number) => box(idOf('u', name), x, y, 190, 66, { round: true });
  const actor = (name: string, x: number, y: number) => box(idOf('a', name), x, y, 90, 92);
  return [
    ...makeDiagram('UMLPackageDiagram', '_d_packages', 'Packages', [
      ...packages.map((pack, index) => box(idOf('p', pack.name), 40 + (index % 3) * 240, 40 + Math.floor(index / 3) * 150, 200, 100)),
      box('_p_behaviour', 520, 190, 200, 100),
    ]),
    ...makeDiagram('UMLClassDiagram', idOf('d', 'Gate drive in its sites'), 'Gate drive in its sites', [
      block('Weir Gate', 40, 40, 200, 90),
      block('Lock Gate', 300, 40, 200, 104),
      block('Gate Drive', 150, 210, 240, 190),
      block('Drive Motor', 460, 190, 170, 56),
      block('Holding Brake', 460, 262, 170, 56),
      block('End Switch', 460, 334, 170, 56),
      block('Torque Limiter', 460, 406, 170, 56),
    ]),
    ...makeDiagram(
      'UMLCompositeStructureDiagram',
      '_d_inside',
      'Inside the gate drive',
      [
        box(drive, 40, 40, 640, 330, {
          inside: [
            box(`${drive}_port_power`, 34, 150, 14, 14, { type: 'UMLShape' }),
            box(`${drive}_port_order`, 34, 260, 14, 14, { type: 'UMLShape' }),
            box(`${drive}_port_status`, 673, 200, 14, 14, { type: 'UMLShape' }),
            box(`${drive}_motor`, 140, 110, 170, 70, { type: 'UMLShape' }),
            box(`${drive}_brake`, 420, 110, 180, 70, { type: 'UMLShape' }),
            box(`${drive}_torque`, 140, 250, 170, 70, { type: 'UMLShape' }),
            box(`${drive}_endSwitch`, 420, 250, 180, 70, { type: 'UMLShape' }),
          ],
        }),
      ],
      [
        {
          element: `${drive}_con_supply`,
          from: `${drive}_port_power`,
          to: `${drive}_motor`,
          by: [
            [90, 157],
            [90, 145],
          ],
        },
        { element: `${drive}_con_shaft`, from: `${drive}_motor`, to: `${drive}_brake` },
        { element: `${drive}_con_cutOff`, from: `${drive}_torque`, to: `${drive}_motor` },
        {
          element: `${drive}_con_ends`,
          from: `${drive}_endSwitch`,
          to: `${drive}_port_status`,
          by: [
            [640, 285],
            [640, 207],
          ],
        },
      ],
    ),
    ...makeDiagram(
      'UMLClassDiagram',
      idOf('d', 'Control and measurement'),
      'Control and measurement',
      control.map((name, index) => block(name, 40 + (index % 3) * 270, 40 + Math.floor(index / 3) * 180, 200, 110)),
      between(control),
    ),
    ...makeDiagram(
      'UMLUseCaseDiagram',
      '_d_use',
      'Who uses it for what',
      [
        actor('Duty Controller', 40, 90),
        actor('Maintenance Crew', 40, 330),
        actor('Boat Crew', 660, 60),
        actor('Resident', 660, 230),
        actor('Flood Authority', 660, 380),
        use('Hold the pool level', 250, 40),
        use('Pass a flood', 250, 130),
        use('Move a gate from the control room', 250, 220),
        use('Service a gate drive', 250, 330),
        use('Take over locally', 250, 420),
        use('Pass the lock', 460, 60),
        use('Warn residents', 460, 270),
      ],
      [
        ...takesPart.map(([who, what]) => ({ element: idOf('as', who + what), from: idOf('a', who), to: idOf('u', what) })),
        { element: '_inc_flood', from: idOf('u', 'Pass a flood'), to: idOf('u', 'Warn residents') },
      ],
    ),
    ...makeDiagram(
      'UMLActivityDiagram',
      '_d_passage',
      'A lock passage, step by step',
      [
        box('_n_begin', 60, 130, 22, 22, { type: 'UMLShape' }),
        box('_n_order', 130, 115, 130, 52, { type: 'UMLShape' }),
        box('_n_level', 310, 121, 40, 40, { type: 'UMLShape' }),
        box('_n_fill', 260, 240, 160, 56, { type: 'UMLShape' }),
        box('_n_open', 450, 113, 140, 56, { type: 'UMLShape' }),
        box('_n_green', 640, 116, 130, 50, { type: 'UMLShape' }),
        box('_n_done', 820, 128, 26, 26, { type: 'UMLShape' }),
      ],
      [
        ['_cf_1', '_n_begin', '_n_order'],
        ['_cf_2', '_n_order', '_n_level'],
        ['_cf_3', '_n_level', '_n_fill'],
        ['_cf_4', '_n_level', '_n_open'],
        ['_cf_6', '_n_open', '_n_green'],
        ['_cf_7', '_n_green', '_n_done'],
      ]
        .map(([element, from, to]): Led => ({ element: element!, from: from!, to: to! }))
        .concat({ element: '_cf_5', from: '_n_fill', to: '_n_open', by: [[520, 268]] }),
    ),
    ...makeDiagram(
      'UMLStateMachineDiagram',
      '_d_states',
      'Life of a gate drive',
      [
        box('_st_start', 60, 120, 20, 20, { type: 'UMLShape' }),
        box('_st_held', 160, 100, 150, 60, { type: 'UMLShape' }),
        box('_st_moving', 470, 100, 130, 60, { type: 'UMLShape' }),
        box('_st_end', 760, 100, 160, 60, { type: 'UMLShape' }),
        box('_st_tripped', 330, 300, 130, 60, { type: 'UMLShape' }),
      ],
      [
        { element: '_tr_1', from: '_st_start', to: '_st_held' },
        {
          element: '_tr_2',
          from: '_st_held',
          to: '_st_moving',
          by: [
            [310, 115],
            [470, 115],
          ],
        },
        {
          element: '_tr_3',
          from: '_st_moving',
          to: '_st_held',
          by: [
            [470, 148],
            [310, 148],
          ],
        },
        {
          element: '_tr_4',
          from: '_st_moving',
          to: '_st_end',
          by: [
            [600, 115],
            [760, 115],
          ],
        },
        {
          element: '_tr_7',
          from: '_st_end',
          to: '_st_moving',
          by: [
            [760, 148],
            [600, 148],
          ],
        },
        { element: '_tr_5', from: '_st_moving', to: '_st_tripped', by: [[535, 330]] },
        { element: '_tr_6', from: '_st_tripped', to: '_st_held', by: [[235, 330]] },
      ],
    ),
    ...makeDiagram(
      'UMLInteractionDiagram',
      '_d_stop',
      'Emergency stop',
      ['desk', 'site', 'drive'].map((key, index) => box(`_ll_${key}`, 60 + index * 240, 40, 150, 330, { type: 'UMLShape' })),
      [
        ['1', 'desk', 'site', 120],
        ['2', 'site', 'drive', 170],
        ['3', 'drive', 'site', 230],
        ['4', 'site', 'desk', 290],
      ].map(([key, from, to, y]) => {
        const x = (one: unknown) => 135 + ['desk', 'site', 'drive'].indexOf(String(one)) * 240;
        return {
          element: `_m_${key}`,
          from: `_ll_${from}`,
          to: `_ll_${to}`,
          by: [
            [x(from), Number(y)],
            [x(to), Number(y)],
          ] as [number, number][],
        };
      }),
    ),
  ];
}
