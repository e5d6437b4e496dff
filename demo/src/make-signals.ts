/** The gate drive as blocks with signals, in the open system-structure format. The second issue measures the temperature as well. */
export function makeSignals(issue: 1 | 2): string {
  const components: [name: string, source: string, at: [number, number], connectors: [name: string, kind: string, unit: string][]][] = [
    [
      'Controller',
      'controller.fmu',
      [0, 40],
      [
        ['order', 'input', 'm'],
        ['position', 'input', 'm'],
        ['current', 'output', 'A'],
        ['brake', 'output', ''],
      ],
    ],
    [
      'Motor',
      'motor.fmu',
      [40, 60],
      [['current', 'input', 'A'], ['torque', 'output', 'N.m'], ...(issue === 2 ? ([['temperature', 'output', 'K']] as [string, string, string][]) : [])],
    ],
    [
      'Brake',
      'brake.fmu',
      [40, 20],
      [
        ['release', 'input', ''],
        ['torque', 'output', 'N.m'],
      ],
    ],
    [
      'Spindle',
      'spindle.fmu',
      [80, 40],
      [
        ['drive', 'input', 'N.m'],
        ['hold', 'input', 'N.m'],
        ['position', 'output', 'm'],
      ],
    ],
  ];
  const connections: [string, string, string, string][] = [
    ['Controller', 'current', 'Motor', 'current'],
    ['Controller', 'brake', 'Brake', 'release'],
    ['Motor', 'torque', 'Spindle', 'drive'],
    ['Brake', 'torque', 'Spindle', 'hold'],
  ];
  const connector = ([name, kind, unit]: [string, string, string], at: [number, number]) =>
    `<ssd:Connector name="${name}" kind="${kind}"><ssc:${unit ? `Real unit="${unit}"` : 'Boolean'}/><ssd:ConnectorGeometry x="${at[0]}" y="${at[1]}"/></ssd:Connector>`;
  const place = (list: [string, string, string][]) => {
    const sides = { input: list.filter(([, kind]) => kind === 'input'), output: list.filter(([, kind]) => kind === 'output') };
    return list.map((one) => {
      const side = sides[one[1] as 'input'];
      return connector(one, [one[1] === 'input' ? 0 : 1, 1 - (side.indexOf(one) + 1) / (side.length + 1)]);
    });
  };
  return `${[
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<ssd:SystemStructureDescription xmlns:ssd="http://ssp-standard.org/SSP1/SystemStructureDescription" xmlns:ssc="http://ssp-standard.org/SSP1/SystemStructureCommon" version="1.0" name="Gate drive" generationTool="Weirside signal bench">`,
    '  <ssd:System name="Gate drive" description="What moves a gate, as blocks with signals.">',
    `    <ssd:Connectors>${connector(['order', 'input', 'm'], [0, 0.55])}${connector(['position', 'output', 'm'], [1, 0.5])}</ssd:Connectors>`,
    '    <ssd:Elements>',
    ...components.map(
      ([name, source, [x, y], list]) =>
        `      <ssd:Component name="${name}" type="application/x-fmu-sharedlibrary" source="resources/${source}"><ssd:Connectors>${place(list).join('')}</ssd:Connectors><ssd:ElementGeometry x1="${x}" y1="${y}" x2="${x + 22}" y2="${y + 14}"/></ssd:Component>`,
    ),
    '    </ssd:Elements>',
    '    <ssd:Connections>',
    '      <ssd:Connection startConnector="order" endElement="Controller" endConnector="order"/>',
    ...connections.map(([a, from, b, to]) => `      <ssd:Connection startElement="${a}" startConnector="${from}" endElement="${b}" endConnector="${to}"/>`),
    '      <ssd:Connection startElement="Spindle" startConnector="position" endConnector="position"/>',
    '      <ssd:Connection startElement="Spindle" startConnector="position" endElement="Controller" endConnector="position"><ssd:ConnectionGeometry pointsX="108 108 -6 -6" pointsY="47 8 8 45"/></ssd:Connection>',
    '    </ssd:Connections>',
    '    <ssd:SystemGeometry x1="-14" y1="0" x2="116" y2="86"/>',
    '  </ssd:System>',
    '</ssd:SystemStructureDescription>',
  ].join('\n')}\n`;
}
