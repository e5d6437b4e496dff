import { makeDiagram, type Placed } from './diagram.js';

/**
 * The supplier's own model of the drive, from another tool than the Larkbeck model: values and references as elements, identifiers of
 * another sort, stereotypes before the model, extensions of the tool between. The second issue moves, adds and rewords.
 */
export function makeDriveModel(issue: 1 | 2): string {
  const id = (number: number) => `D7A1-${(0x4c10 + number * 37).toString(16).toUpperCase()}`;
  const requirements: [number, string, string, string][] = [
    [1, 'DR-1', 'Travel', issue === 1 ? 'The drive shall move the gate by up to 3.40 m.' : 'The drive shall move the gate by up to 3.50 m.'],
    [2, 'DR-2', 'Load', 'The drive shall lift 120 kN.'],
    [3, 'DR-3', 'Hold', 'The drive shall hold the gate without power.'],
    [4, 'DR-4', 'Cut off', 'The drive shall cut itself off within 0.3 s when the torque is too high.'],
    ...(issue === 2 ? ([[5, 'DR-5', 'Temperature', 'The drive shall tell the temperature of its winding.']] as [number, string, string, string][]) : []),
  ];
  const blocks: [number, string, string][] = [
    [20, 'Spindle unit', 'Turns rotation into lift.'],
    [21, 'Motor', 'Asynchronous, four poles.'],
    [22, 'Spring brake', 'Applied by springs, released by current.'],
    [23, issue === 1 ? 'Torque switch' : 'Torque sensor', 'Watches the torque.'],
  ];
  const satisfied: [number, number, number][] = [
    [40, 20, 1],
    [41, 21, 2],
    [42, 22, 3],
    [43, 23, 4],
    ...(issue === 2 ? ([[44, 21, 5]] as [number, number, number][]) : []),
  ];
  const note = '<x:Extension extender="Spindle works modeller"><folder open="true" tint="12"/></x:Extension>';
  const text = (tag: string, value: string) => `<${tag}>${value}</${tag}>`;
  const box = (number: number, x: number, y: number, width = 190, height = 104): Placed => ({ element: id(number), x, y, width, height });
  const shift = issue === 2 ? 30 : 0;
  const lines = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<x:XMI xmlns:x="http://www.omg.org/spec/XMI/20110701" xmlns:U="http://www.omg.org/spec/UML/20110701" xmlns:sys="http://www.omg.org/spec/SysML/20120322/SysML" xmlns:umldi="http://www.omg.org/spec/UML/20150501/UMLDI" xmlns:xmi="http://www.omg.org/spec/XMI/20110701">',
    '  <x:Documentation><x:exporter>Spindle works modeller</x:exporter><x:exporterVersion>4.2</x:exporterVersion></x:Documentation>',
    ...requirements.map(
      ([number, key, , says]) =>
        `  <sys:Requirement x:id="${id(number)}-r"><base_Class x:idref="${id(number)}"/>${text('id', key)}${text('text', says)}</sys:Requirement>`,
    ),
    ...blocks.map(([number]) => `  <sys:Block x:id="${id(number)}-b"><base_Class x:idref="${id(number)}"/></sys:Block>`),
    ...satisfied.map(([number]) => `  <sys:Satisfy x:id="${id(number)}-s"><base_Abstraction x:idref="${id(number)}"/></sys:Satisfy>`),
    `  <U:Model x:id="${id(0)}">${text('name', 'Drive of the supplier')}${note}`,
    `    <packagedElement x:type="U:Package" x:id="${id(10)}">${text('name', 'What it must do')}`,
    ...requirements.map(([number, , name]) => `      <packagedElement x:type="U:Class" x:id="${id(number)}">${text('name', name)}</packagedElement>`),
    '    </packagedElement>',
    `    <packagedElement x:type="U:Package" x:id="${id(11)}">${text('name', 'What it is made of')}${note}`,
    ...blocks.map(
      ([number, name, says]) =>
        `      <packagedElement x:type="U:Class" x:id="${id(number)}">${text('name', name)}<ownedComment x:id="${id(number)}-c">${text('body', says)}<annotatedElement x:idref="${id(number)}"/></ownedComment>${number === 21 ? `<ownedAttribute x:id="${id(60)}">${text('name', 'ratedCurrent')}<defaultValue x:type="U:LiteralReal" x:id="${id(61)}">${text('value', '14.5')}</defaultValue></ownedAttribute>` : ''}</packagedElement>`,
    ),
    '    </packagedElement>',
    ...satisfied.map(
      ([number, from, to]) =>
        `    <packagedElement x:type="U:Abstraction" x:id="${id(number)}"><client x:idref="${id(from)}"/><supplier x:idref="${id(to)}"/></packagedElement>`,
    ),
    '  </U:Model>',
    ...makeDiagram(
      'UMLClassDiagram',
      id(90),
      'Requirements of the drive',
      [
        ...requirements.map(([number], index) => box(number, 40 + index * 230, 40)),
        ...blocks.map(([number], index) => box(number, 40 + index * 230 + (index === 3 ? shift : 0), 230 + (index === 1 ? shift : 0), 190, 76)),
      ],
      satisfied.map(([number, from, to]) => ({ element: id(number), from: id(from), to: id(to) })),
    ),
    '</x:XMI>',
  ];
  return `${lines.join('\n')}\n`;
}
