import { applyModelRecipe, defaultScheme, proposeModelRecipe } from '@coomb/core';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { readFileContent } from '../reading.js';

const ssd = `<ssd:SystemStructureDescription xmlns:ssd="http://ssp-standard.org/SSP1/SystemStructureDescription" xmlns:ssc="http://ssp-standard.org/SSP1/SystemStructureCommon" version="1.0" name="Drive" generationTool="Some tool">
<ssd:System name="Drive"><ssd:Connectors><ssd:Connector name="order" kind="input"><ssc:Real unit="m"/></ssd:Connector></ssd:Connectors>
<ssd:Elements>
<ssd:Component name="Motor" source="motor.fmu" type="application/x-fmu-sharedlibrary"><ssd:Connectors><ssd:Connector name="torque" kind="output"><ssc:Real unit="N.m"/><ssd:ConnectorGeometry x="1" y="0.75"/></ssd:Connector></ssd:Connectors><ssd:ElementGeometry x1="0" y1="0" x2="20" y2="10"/></ssd:Component>
<ssd:Component name="Brake"><ssd:Connectors><ssd:Connector name="load" kind="input"><ssc:Boolean/></ssd:Connector></ssd:Connectors><ssd:ElementGeometry x1="40" y1="0" x2="60" y2="10"/></ssd:Component>
</ssd:Elements>
<ssd:Connections><ssd:Connection startElement="Motor" startConnector="torque" endElement="Brake" endConnector="load"><ssd:ConnectionGeometry pointsX="30 30" pointsY="7.5 5"/></ssd:Connection><ssd:Connection startConnector="order" endElement="Motor" endConnector="none"/></ssd:Connections>
</ssd:System></ssd:SystemStructureDescription>`;

describe('a system structure', () => {
  it.each([
    ['drive.ssd', Buffer.from(ssd)],
    ['drive.ssp', Buffer.from(zipSync({ 'SystemStructure.ssd': Buffer.from(ssd), 'resources/motor.fmu': new Uint8Array(4) }))],
  ])('gives systems, components, connectors and connections, from %s', async (name, bytes) => {
    const { content } = await readFileContent(name, bytes);
    if (content.type !== 'model') throw new Error(content.type);
    const { model, issues } = content;
    expect(model.elements.map(({ id, type, parent, typeName, values }) => [id, type, parent, typeName, values])).toEqual([
      ['Drive', 'System', null, undefined, {}],
      ['Drive.order', 'Connector', 'Drive', 'Real', { kind: 'input', unit: 'm' }],
      ['Drive/Motor', 'SystemComponent', 'Drive', undefined, { source: 'motor.fmu', 'media type': 'application/x-fmu-sharedlibrary' }],
      ['Drive/Motor.torque', 'Connector', 'Drive/Motor', 'Real', { kind: 'output', unit: 'N.m' }],
      ['Drive/Brake', 'SystemComponent', 'Drive', undefined, {}],
      ['Drive/Brake.load', 'Connector', 'Drive/Brake', 'Boolean', { kind: 'input' }],
    ]);
    expect(model.relations.map(({ from, to }) => [from, to])).toEqual([
      [['Drive/Motor.torque'], ['Drive/Brake.load']],
      [['Drive.order'], ['Drive/Motor.none']],
    ]);
    expect(issues).toMatchObject([{ code: 'relation-dangling', message: expect.stringContaining('Drive/Motor.none') }]);
  });

  it('is drawn where it was placed, the right way up', async () => {
    const { content } = await readFileContent('drive.ssd', Buffer.from(ssd));
    if (content.type !== 'model') throw new Error(content.type);
    const [drawing] = content.model.drawings;
    const motor = drawing!.shapes.find(({ element }) => element === 'Drive/Motor')!;
    const torque = drawing!.shapes.find(({ element }) => element === 'Drive/Motor.torque')!;
    // 20 wide becomes 150; the connector stands three quarters up the right side.
    expect([motor.x, motor.y, motor.width, motor.height]).toEqual([0, -75, 150, 75]);
    expect([torque.x + torque.width / 2, torque.y + torque.height / 2]).toEqual([150, -75 + 75 * 0.25]);
    expect(drawing!.routes[0]!.points).toEqual([
      { x: 156, y: -56.25 },
      { x: 225, y: -56.25 },
      { x: 225, y: -37.5 },
      { x: 294, y: -37.5 },
    ]);
  });

  it('becomes components with ports', async () => {
    const { content } = await readFileContent('drive.ssd', Buffer.from(ssd));
    if (content.type !== 'model') throw new Error(content.type);
    const { drafts } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, content.model), content.model);
    expect(drafts.map(({ kind, title }) => [kind, title])).toEqual([
      ['component', 'Drive'],
      ['port', 'order'],
      ['component', 'Motor'],
      ['port', 'torque'],
      ['component', 'Brake'],
      ['port', 'load'],
      ['drawing', 'Drive'],
    ]);
  });
});
