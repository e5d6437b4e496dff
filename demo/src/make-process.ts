/** A lock passage as a process: who does what, in BPMN 2.0 with its drawing. The second issue asks for the water level first. */
export function makeProcess(issue: 1 | 2): string {
  const tasks: [id: string, type: string, name: string, lane: 'crew' | 'control', x: number][] = [
    ['ask', 'userTask', 'Ask for a passage', 'crew', 180],
    ['check', 'serviceTask', issue === 1 ? 'Check chamber and queue' : 'Check chamber, queue and water level', 'control', 320],
    ['prepare', 'serviceTask', 'Level the chamber', 'control', 590],
    ['enter', 'manualTask', 'Enter and make fast', 'crew', 730],
    ['pass', 'serviceTask', 'Level to the other side', 'control', 870],
    ['leave', 'manualTask', 'Leave the chamber', 'crew', 1010],
  ];
  const flows: [id: string, from: string, to: string, name?: string][] = [
    ['f1', 'start', 'ask'],
    ['f2', 'ask', 'check'],
    ['f3', 'check', 'free'],
    ['f4', 'free', 'prepare', 'free'],
    ['f5', 'free', 'wait', 'taken'],
    ['f6', 'wait', 'check'],
    ['f7', 'prepare', 'enter'],
    ['f8', 'enter', 'pass'],
    ['f9', 'pass', 'leave'],
    ['f10', 'leave', 'end'],
  ];
  const y = { crew: 90, control: 230 };
  const boxes = new Map<string, [x: number, y: number, width: number, height: number]>([
    ['start', [110, y.crew + 22, 36, 36]],
    ...tasks.map(([id, , , lane, x]): [string, [number, number, number, number]] => [id, [x, y[lane], 110, 80]]),
    ['free', [470, y.control + 15, 50, 50]],
    ['wait', [477, y.control + 110, 36, 36]],
    ['end', [1170, y.crew + 22, 36, 36]],
  ]);
  const middle = (id: string): [number, number] => {
    const [x, top, width, height] = boxes.get(id)!;
    return [x + width / 2, top + height / 2];
  };
  const route = (from: string, to: string): [number, number][] => {
    const [a, b] = [middle(from), middle(to)];
    const [, , aw, ah] = boxes.get(from)!;
    const [, , bw, bh] = boxes.get(to)!;
    if (Math.abs(a[0] - b[0]) < 5)
      return [
        [a[0], a[1] + (Math.sign(b[1] - a[1]) * ah) / 2],
        [b[0], b[1] - (Math.sign(b[1] - a[1]) * bh) / 2],
      ];
    if (to === 'check' && from === 'wait')
      return [
        [a[0] - aw / 2, a[1]],
        [b[0], a[1]],
        [b[0], b[1] + bh / 2],
      ];
    const start: [number, number] = [a[0] + aw / 2, a[1]];
    if (a[1] === b[1]) return [start, [b[0] - bw / 2, b[1]]];
    return [start, [b[0], a[1]], [b[0], b[1] - (Math.sign(b[1] - a[1]) * bh) / 2]];
  };
  const shape = (id: string, [x, top, width, height]: readonly number[], more = '') =>
    `      <bpmndi:BPMNShape id="${id}_di" bpmnElement="${id}"${more}><dc:Bounds x="${x}" y="${top}" width="${width}" height="${height}"/></bpmndi:BPMNShape>`;
  return `${[
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<bpmn:definitions xmlns:bpmn="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:bpmndi="http://www.omg.org/spec/BPMN/20100524/DI" xmlns:dc="http://www.omg.org/spec/DD/20100524/DC" xmlns:di="http://www.omg.org/spec/DD/20100524/DI" id="passage" targetNamespace="urn:larkbeck:lock" exporter="Otterby process board">',
    '  <bpmn:collaboration id="lock"><bpmn:participant id="otterby" name="Otterby lock" processRef="passing"/></bpmn:collaboration>',
    '  <bpmn:process id="passing" name="Pass the lock" isExecutable="false">',
    '    <bpmn:laneSet id="lanes">',
    ...(['crew', 'control'] as const).map(
      (lane) =>
        `      <bpmn:lane id="${lane}" name="${lane === 'crew' ? 'Boat crew' : 'Lock control'}">${[...tasks.filter((task) => task[3] === lane).map(([id]) => id), ...(lane === 'crew' ? ['start', 'end'] : ['free', 'wait'])].map((id) => `<bpmn:flowNodeRef>${id}</bpmn:flowNodeRef>`).join('')}</bpmn:lane>`,
    ),
    '    </bpmn:laneSet>',
    '    <bpmn:startEvent id="start" name="Boat arrives"/>',
    ...tasks.map(([id, type, name]) => `    <bpmn:${type} id="${id}" name="${name}"/>`),
    '    <bpmn:exclusiveGateway id="free" name="Chamber free?"/>',
    '    <bpmn:intermediateCatchEvent id="wait" name="Two minutes"><bpmn:timerEventDefinition id="two"><bpmn:timeDuration>PT2M</bpmn:timeDuration></bpmn:timerEventDefinition></bpmn:intermediateCatchEvent>',
    '    <bpmn:endEvent id="end" name="Passed"/>',
    '    <bpmn:textAnnotation id="limit"><bpmn:text>Fifteen minutes from order to end, unless another boat waits.</bpmn:text></bpmn:textAnnotation>',
    '    <bpmn:association id="limit_of" sourceRef="pass" targetRef="limit"/>',
    ...flows.map(([id, from, to, name]) => `    <bpmn:sequenceFlow id="${id}"${name ? ` name="${name}"` : ''} sourceRef="${from}" targetRef="${to}"/>`),
    '  </bpmn:process>',
    '  <bpmndi:BPMNDiagram id="passage_di" name="Pass the lock">',
    '    <bpmndi:BPMNPlane id="plane" bpmnElement="lock">',
    shape('otterby', [40, 60, 1210, 350], ' isHorizontal="true"'),
    shape('crew', [70, 60, 1180, 140], ' isHorizontal="true"'),
    shape('control', [70, 200, 1180, 210], ' isHorizontal="true"'),
    ...[...boxes].map(([id, bounds]) => shape(id, bounds)),
    shape('limit', [990, 335, 200, 50]),
    ...flows.map(
      ([id, from, to]) =>
        `      <bpmndi:BPMNEdge id="${id}_di" bpmnElement="${id}">${route(from, to)
          .map(([x, top]) => `<di:waypoint x="${x}" y="${top}"/>`)
          .join('')}</bpmndi:BPMNEdge>`,
    ),
    '      <bpmndi:BPMNEdge id="limit_of_di" bpmnElement="limit_of"><di:waypoint x="925" y="310"/><di:waypoint x="925" y="360"/><di:waypoint x="990" y="360"/></bpmndi:BPMNEdge>',
    '    </bpmndi:BPMNPlane>',
    '  </bpmndi:BPMNDiagram>',
    '</bpmn:definitions>',
  ].join('\n')}\n`;
}
