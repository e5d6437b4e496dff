/** How the warning stage is decided, in DMN. The second issue adds a rule for a flood that comes by night. */
export function makeDecisions(issue: 1 | 2): string {
  const rules: [level: string, trend: string, stage: string][] = [
    ['> 3.2', '-', '"leave"'],
    ['[2.6..3.2]', '"rising"', '"leave"'],
    ['[2.6..3.2]', 'not("rising")', '"prepare"'],
    ['[2.0..2.6[', '"rising"', '"prepare"'],
    ['[2.0..2.6[', 'not("rising")', '"watch"'],
    ...(issue === 2 ? ([['[1.8..2.0[', '"rising"', '"watch"']] as [string, string, string][]) : []),
    ['< 2.0', '-', '"none"'],
  ];
  const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
  const entry = (tag: string, id: string, text: string) => `<${tag} id="${id}"><text>${escaped(text)}</text></${tag}>`;
  const shape = (of: string, x: number, y: number, width: number, height: number) =>
    `      <dmndi:DMNShape id="${of}_di" dmnElementRef="${of}"><dc:Bounds x="${x}" y="${y}" width="${width}" height="${height}"/></dmndi:DMNShape>`;
  const edge = (of: string, points: [number, number][]) =>
    `      <dmndi:DMNEdge id="${of}_di" dmnElementRef="${of}">${points.map(([x, y]) => `<di:waypoint x="${x}" y="${y}"/>`).join('')}</dmndi:DMNEdge>`;
  return `${[
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<definitions xmlns="https://www.omg.org/spec/DMN/20191111/MODEL/" xmlns:dmndi="https://www.omg.org/spec/DMN/20191111/DMNDI/" xmlns:dc="http://www.omg.org/spec/DMN/20180521/DC/" xmlns:di="http://www.omg.org/spec/DMN/20180521/DI/" id="stages" name="Warning stages" namespace="urn:larkbeck:warning">',
    '  <decision id="stage" name="Stage of warning"><description>Which stage is proposed to the person on duty.</description><question>Which stage?</question>',
    '    <informationRequirement id="n_level"><requiredInput href="#level"/></informationRequirement>',
    '    <informationRequirement id="n_trend"><requiredDecision href="#trend"/></informationRequirement>',
    '    <authorityRequirement id="n_plan"><requiredAuthority href="#plan"/></authorityRequirement>',
    '    <decisionTable id="table" hitPolicy="FIRST"><input id="i_level" label="Forecast level in m"><inputExpression id="e_level"><text>forecast level</text></inputExpression></input><input id="i_trend" label="Trend"><inputExpression id="e_trend"><text>trend</text></inputExpression></input><output id="o_stage" name="stage" label="Stage"/>',
    ...rules.map(
      ([level, trend, stage], index) =>
        `      <rule id="rule${level === '[1.8..2.0[' ? 'Night' : index === 6 ? 5 : index}">${entry('inputEntry', `l${index}`, level)}${entry('inputEntry', `t${index}`, trend)}${entry('outputEntry', `s${index}`, stage)}</rule>`,
    ),
    '    </decisionTable>',
    '  </decision>',
    '  <decision id="trend" name="Trend"><informationRequirement id="n_readings"><requiredInput href="#readings"/></informationRequirement><literalExpression id="x_trend"><text>if level - level an hour ago > 0.1 then "rising" else "steady"</text></literalExpression></decision>',
    '  <inputData id="level" name="Forecast level"/>',
    '  <inputData id="readings" name="Gauge readings"/>',
    '  <knowledgeSource id="plan" name="Flood plan of the authority"/>',
    '  <dmndi:DMNDI>',
    '    <dmndi:DMNDiagram id="drd" name="What the warning stage rests on">',
    shape('stage', 240, 60, 180, 80),
    shape('trend', 400, 230, 160, 70),
    shape('level', 120, 240, 150, 50),
    shape('readings', 405, 370, 150, 50),
    shape('plan', 560, 70, 170, 64),
    edge('n_level', [
      [200, 240],
      [300, 140],
    ]),
    edge('n_trend', [
      [470, 230],
      [370, 140],
    ]),
    edge('n_readings', [
      [480, 370],
      [480, 300],
    ]),
    edge('n_plan', [
      [560, 101],
      [420, 101],
    ]),
    '    </dmndi:DMNDiagram>',
    '  </dmndi:DMNDI>',
    '</definitions>',
  ].join('\n')}\n`;
}
