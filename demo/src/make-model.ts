import { makeModelDrawings } from './make-model-drawings.js';
import { actors, dependencies, functions, packages, takesPart, useCases } from './model.js';

const escapeXml = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
const idOf = (prefix: string, name: string) => `_${prefix}_${name.replace(/[^A-Za-z0-9]+/g, '_')}`;

/** The model as UML 2.5.1 in XMI 2.5.1, SysML stereotypes as plain XML, drawings in UML diagram interchange. */
export function makeModel(): string {
  const stereotypes: string[] = [];
  const lines = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:umldi="http://www.omg.org/spec/UML/20161101/UMLDI" xmlns:dc="http://www.omg.org/spec/DD/20131001/DC" xmlns:di="http://www.omg.org/spec/DD/20131001/DI" xmlns:sysml="http://www.omg.org/spec/SysML/20181001/SysML">',
    '  <xmi:Documentation><xmi:exporter>Larkbeck modelling desk</xmi:exporter></xmi:Documentation>',
    '  <uml:Model xmi:type="uml:Model" xmi:id="_model" name="Larkbeck Weir">',
    ...packages.flatMap((pack) => buildPackage(pack, stereotypes)),
    ...buildBehaviour(stereotypes),
    ...['Metre', 'Kilonewton'].map((name) => `    <packagedElement xmi:type="uml:DataType" xmi:id="_t_${name}" name="${name}"/>`),
    ...dependencies.map(
      ([from, to], index) => `    <packagedElement xmi:type="uml:Dependency" xmi:id="_dep_${index}" client="${idOf('b', from)}" supplier="${idOf('b', to)}"/>`,
    ),
    '  </uml:Model>',
    ...stereotypes,
    ...makeModelDrawings(idOf),
    '</xmi:XMI>',
  ];
  return `${lines.join('\n')}\n`;
}

/** Connectors inside the drive, from port to part and from part to part. */
function driveConnectors(id: string): string[] {
  const connect = (name: string, from: string, to: string) =>
    `        <ownedConnector xmi:type="uml:Connector" xmi:id="${id}_con_${name}" name="${name}"><end xmi:type="uml:ConnectorEnd" xmi:id="${id}_con_${name}_a" role="${from}"/><end xmi:type="uml:ConnectorEnd" xmi:id="${id}_con_${name}_b" role="${to}"/></ownedConnector>`;
  return [
    connect('supply', `${id}_port_power`, `${id}_motor`),
    connect('shaft', `${id}_motor`, `${id}_brake`),
    connect('cutOff', `${id}_torque`, `${id}_motor`),
    connect('ends', `${id}_endSwitch`, `${id}_port_status`),
  ];
}

/** The steps of a passage with their flow. */
function passageActivity(id: string): string[] {
  const node = (type: string, key: string, name = '') => `<node xmi:type="uml:${type}" xmi:id="_n_${key}"${name ? ` name="${name}"` : ''}/>`;
  const edge = (key: string, from: string, to: string, guard = '') =>
    `<edge xmi:type="uml:ControlFlow" xmi:id="_cf_${key}" source="_n_${from}" target="_n_${to}">${guard ? `<guard xmi:type="uml:LiteralString" xmi:id="_cf_${key}_g" value="${guard}"/>` : ''}</edge>`;
  return [
    `      <packagedElement xmi:type="uml:Activity" xmi:id="${id}" name="Run lock passage">`,
    ...[
      node('InitialNode', 'begin'),
      node('OpaqueAction', 'order', 'Take the order'),
      node('DecisionNode', 'level'),
      node('OpaqueAction', 'fill', 'Fill or empty the chamber'),
      node('OpaqueAction', 'open', 'Open the gate'),
      node('SendSignalAction', 'green', 'Show green'),
      node('ActivityFinalNode', 'done'),
      edge('1', 'begin', 'order'),
      edge('2', 'order', 'level'),
      edge('3', 'level', 'fill', 'levels differ'),
      edge('4', 'level', 'open', 'levels equal'),
      edge('5', 'fill', 'open'),
      edge('6', 'open', 'green'),
      edge('7', 'green', 'done'),
    ].map((line) => `        ${line}`),
    '      </packagedElement>',
  ];
}

/** What a drive may be doing. */
function driveStates(): string[] {
  const state = (key: string, name: string) => `<subvertex xmi:type="uml:State" xmi:id="_st_${key}" name="${name}"/>`;
  const transition = (key: string, from: string, to: string, name: string, guard = '') =>
    `<transition xmi:type="uml:Transition" xmi:id="_tr_${key}" name="${name}" source="_st_${from}" target="_st_${to}">${guard ? `<guard xmi:type="uml:Constraint" xmi:id="_tr_${key}_g"><specification xmi:type="uml:OpaqueExpression" xmi:id="_tr_${key}_e" body="${guard}"/></guard>` : ''}</transition>`;
  return [
    '      <packagedElement xmi:type="uml:StateMachine" xmi:id="_sm_drive" name="Life of a gate drive"><region xmi:type="uml:Region" xmi:id="_sm_drive_r">',
    ...[
      '<subvertex xmi:type="uml:Pseudostate" xmi:id="_st_start"/>',
      state('held', 'Held by the brake'),
      state('moving', 'Moving'),
      state('end', 'At an end of travel'),
      state('tripped', 'Cut off'),
      transition('1', 'start', 'held', ''),
      transition('2', 'held', 'moving', 'order', 'nobody in the way'),
      transition('3', 'moving', 'held', 'stop'),
      transition('4', 'moving', 'end', 'end switch'),
      transition('5', 'moving', 'tripped', 'torque too high'),
      transition('6', 'tripped', 'held', 'released by hand'),
      transition('7', 'end', 'moving', 'order back'),
    ].map((line) => `        ${line}`),
    '      </region></packagedElement>',
  ];
}

/** Who says what when the emergency stop is pressed. */
function emergencyStop(): string[] {
  const life = (key: string, name: string) => `<lifeline xmi:type="uml:Lifeline" xmi:id="_ll_${key}" name="${name}"/>`;
  const message = (key: string, name: string, from: string, to: string, sort: string) =>
    `<fragment xmi:type="uml:MessageOccurrenceSpecification" xmi:id="_ms_${key}" covered="_ll_${from}"/><fragment xmi:type="uml:MessageOccurrenceSpecification" xmi:id="_mr_${key}" covered="_ll_${to}"/><message xmi:type="uml:Message" xmi:id="_m_${key}" name="${name}" messageSort="${sort}" sendEvent="_ms_${key}" receiveEvent="_mr_${key}"/>`;
  return [
    '      <packagedElement xmi:type="uml:Interaction" xmi:id="_ia_stop" name="Emergency stop">',
    ...[
      life('desk', 'Order Desk'),
      life('site', 'Site Controller'),
      life('drive', 'Gate Drive'),
      message('1', 'stop all', 'desk', 'site', 'asynchCall'),
      message('2', 'cut off', 'site', 'drive', 'synchCall'),
      message('3', 'held', 'drive', 'site', 'reply'),
      message('4', 'stopped', 'site', 'desk', 'asynchSignal'),
    ].map((line) => `        ${line}`),
    '      </packagedElement>',
  ];
}

function buildPackage(pack: (typeof packages)[number], stereotypes: string[]): string[] {
  const lines = [`    <packagedElement xmi:type="uml:Package" xmi:id="${idOf('p', pack.name)}" name="${escapeXml(pack.name)}">`];
  for (const block of pack.blocks) {
    const id = idOf('b', block.name);
    stereotypes.push(`  <sysml:Block xmi:id="${id}_st" base_Class="${id}"/>`);
    lines.push(`      <packagedElement xmi:type="uml:Class" xmi:id="${id}" name="${escapeXml(block.name)}">`);
    lines.push(
      `        <ownedComment xmi:type="uml:Comment" xmi:id="${id}_c" body="${escapeXml(block.text)}"><annotatedElement xmi:idref="${id}"/></ownedComment>`,
    );
    for (const [name, type] of block.parts ?? [])
      lines.push(`        <ownedAttribute xmi:type="uml:Property" xmi:id="${id}_${name}" name="${name}" aggregation="composite" type="${idOf('b', type)}"/>`);
    for (const [name, type, is] of block.values ?? [])
      lines.push(
        `        <ownedAttribute xmi:type="uml:Property" xmi:id="${id}_${name}" name="${name}" aggregation="composite" type="_t_${type}">${is ? `<defaultValue xmi:type="uml:LiteralReal" xmi:id="${id}_${name}_is" value="${is}"/>` : ''}</ownedAttribute>`,
      );
    for (const name of block.ports ?? [])
      lines.push(`        <ownedAttribute xmi:type="uml:Port" xmi:id="${id}_port_${name}" name="${name}" aggregation="composite"/>`);
    if (block.name === 'Gate Drive') lines.push(...driveConnectors(id));
    lines.push('      </packagedElement>');
  }
  return [...lines, '    </packagedElement>'];
}

function buildBehaviour(stereotypes: string[]): string[] {
  const lines = ['    <packagedElement xmi:type="uml:Package" xmi:id="_p_behaviour" name="Behaviour">'];
  for (const name of actors) lines.push(`      <packagedElement xmi:type="uml:Actor" xmi:id="${idOf('a', name)}" name="${name}"/>`);
  for (const [name] of useCases)
    lines.push(
      `      <packagedElement xmi:type="uml:UseCase" xmi:id="${idOf('u', name)}" name="${name}">${name === 'Pass a flood' ? `<include xmi:type="uml:Include" xmi:id="_inc_flood" addition="${idOf('u', 'Warn residents')}"/>` : ''}</packagedElement>`,
    );
  for (const [actor, useCase] of takesPart)
    lines.push(
      `      <packagedElement xmi:type="uml:Association" xmi:id="${idOf('as', actor + useCase)}" memberEnd="${idOf('as', actor + useCase)}_a ${idOf('as', actor + useCase)}_b"><ownedEnd xmi:type="uml:Property" xmi:id="${idOf('as', actor + useCase)}_a" type="${idOf('a', actor)}"/><ownedEnd xmi:type="uml:Property" xmi:id="${idOf('as', actor + useCase)}_b" type="${idOf('u', useCase)}"/></packagedElement>`,
    );
  for (const [name] of functions)
    lines.push(
      ...(name === 'Run lock passage'
        ? passageActivity(idOf('f', name))
        : [`      <packagedElement xmi:type="uml:Activity" xmi:id="${idOf('f', name)}" name="${name}"/>`]),
    );
  lines.push(...driveStates(), ...emergencyStop());
  functions.forEach(([name, performer], index) => {
    lines.push(
      `      <packagedElement xmi:type="uml:Abstraction" xmi:id="_alloc_${index}"><client xmi:idref="${idOf('f', name)}"/><supplier xmi:idref="${idOf('b', performer)}"/></packagedElement>`,
    );
    stereotypes.push(`  <sysml:Allocate xmi:id="_alloc_${index}_st" base_Abstraction="_alloc_${index}"/>`);
  });
  lines.push('      <packagedElement xmi:type="uml:TimeEvent" xmi:id="_time" name="every 15 minutes"/>');
  return [...lines, '    </packagedElement>'];
}
