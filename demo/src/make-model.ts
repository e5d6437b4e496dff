import { actors, dependencies, functions, packages, useCases } from './model.js';

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
    ...dependencies.map(
      ([from, to], index) => `    <packagedElement xmi:type="uml:Dependency" xmi:id="_dep_${index}" client="${idOf('b', from)}" supplier="${idOf('b', to)}"/>`,
    ),
    '  </uml:Model>',
    ...stereotypes,
    ...buildDrawing('Gate drive in its sites', ['Weir Gate', 'Lock Gate', 'Gate Drive', 'Drive Motor', 'Holding Brake', 'Torque Limiter'], 3),
    ...buildDrawing('Control and measurement', ['Control Room', 'Weir Control', 'Lock Control', 'Gauge Network', 'Flood Warning Service', 'Site Power'], 2),
    '</xmi:XMI>',
  ];
  return `${lines.join('\n')}\n`;
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
    for (const name of block.ports ?? [])
      lines.push(`        <ownedAttribute xmi:type="uml:Port" xmi:id="${id}_port_${name}" name="${name}" aggregation="composite"/>`);
    lines.push('      </packagedElement>');
  }
  return [...lines, '    </packagedElement>'];
}

function buildBehaviour(stereotypes: string[]): string[] {
  const lines = ['    <packagedElement xmi:type="uml:Package" xmi:id="_p_behaviour" name="Behaviour">'];
  for (const name of actors) lines.push(`      <packagedElement xmi:type="uml:Actor" xmi:id="${idOf('a', name)}" name="${name}"/>`);
  for (const [name] of useCases) lines.push(`      <packagedElement xmi:type="uml:UseCase" xmi:id="${idOf('u', name)}" name="${name}"/>`);
  for (const [name] of functions) lines.push(`      <packagedElement xmi:type="uml:Activity" xmi:id="${idOf('f', name)}" name="${name}"/>`);
  functions.forEach(([name, performer], index) => {
    lines.push(
      `      <packagedElement xmi:type="uml:Abstraction" xmi:id="_alloc_${index}"><client xmi:idref="${idOf('f', name)}"/><supplier xmi:idref="${idOf('b', performer)}"/></packagedElement>`,
    );
    stereotypes.push(`  <sysml:Allocate xmi:id="_alloc_${index}_st" base_Abstraction="_alloc_${index}"/>`);
  });
  lines.push('      <packagedElement xmi:type="uml:TimeEvent" xmi:id="_time" name="every 15 minutes"/>');
  return [...lines, '    </packagedElement>'];
}

function buildDrawing(name: string, blocks: string[], columns: number): string[] {
  const shapes = blocks.map(
    (block, index) =>
      `    <ownedElement xmi:type="umldi:UMLClassifierShape" xmi:id="${idOf('shape', block)}" modelElement="${idOf('b', block)}"><bounds x="${40 + (index % columns) * 220}" y="${40 + Math.floor(index / columns) * 150}" width="160" height="80"/></ownedElement>`,
  );
  const routes = dependencies
    .filter(([from, to]) => blocks.includes(from) && blocks.includes(to))
    .map(
      ([from, to]) =>
        `    <ownedElement xmi:type="umldi:UMLEdge" xmi:id="${idOf('edge', from + to)}" modelElement="_dep_${dependencies.findIndex(([a, b]) => a === from && b === to)}"><waypoint x="${120 + (blocks.indexOf(from) % columns) * 220}" y="${120 + Math.floor(blocks.indexOf(from) / columns) * 150}"/><waypoint x="${120 + (blocks.indexOf(to) % columns) * 220}" y="${40 + Math.floor(blocks.indexOf(to) / columns) * 150}"/></ownedElement>`,
    );
  return [`  <umldi:UMLClassDiagram xmi:id="${idOf('d', name)}" name="${name}">`, ...shapes, ...routes, '  </umldi:UMLClassDiagram>'];
}
