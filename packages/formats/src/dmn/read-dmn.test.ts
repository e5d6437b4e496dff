import { applyModelRecipe, buildDrawn, defaultScheme, proposeModelRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readFileContent } from '../reading.js';

const spaces = { '1.1': 'http://www.omg.org/spec/DMN/20151101/dmn.xsd', '1.5': 'https://www.omg.org/spec/DMN/20230324/MODEL/' };

const decisions = (version: keyof typeof spaces) =>
  Buffer.from(`<definitions xmlns="${spaces[version]}" xmlns:dmndi="https://www.omg.org/spec/DMN/20230324/DMNDI/" xmlns:dc="http://www.omg.org/spec/DMN/20180521/DC/" xmlns:di="http://www.omg.org/spec/DMN/20180521/DI/" id="d" name="Stages">
  <decision id="stage" name="Stage"><question>Which stage?</question>
    <informationRequirement id="ir1"><requiredInput href="#level"/></informationRequirement>
    <informationRequirement id="ir2"><requiredDecision href="#trend"/></informationRequirement>
    <knowledgeRequirement id="kr"><requiredKnowledge href="library.dmn#curve"/></knowledgeRequirement>
    <authorityRequirement id="ar"><requiredAuthority href="#plan"/></authorityRequirement>
    <decisionTable id="t" hitPolicy="FIRST"><input id="i1" label="Level"><inputExpression><text>level</text></inputExpression></input><input id="i2"><inputExpression><text>trend</text></inputExpression></input><output id="o" name="stage"/>
      <rule id="r1"><inputEntry id="a"><text>&gt; 3</text></inputEntry><inputEntry id="b"><text>"rising"</text></inputEntry><outputEntry id="c"><text>"leave"</text></outputEntry></rule>
      <rule id="r2"><inputEntry id="e"><text>&gt; 2</text></inputEntry><inputEntry id="f"><text></text></inputEntry><outputEntry id="g"><text>"prepare"</text></outputEntry></rule>
    </decisionTable></decision>
  <decision id="trend" name="Trend"><literalExpression><text>now - before</text></literalExpression></decision>
  <inputData id="level" name="Level"/>
  <knowledgeSource id="plan" name="Flood plan"/>
  <dmndi:DMNDI><dmndi:DMNDiagram id="dd"><dmndi:DMNShape id="s1" dmnElementRef="stage"><dc:Bounds x="100" y="20" width="160" height="60"/></dmndi:DMNShape><dmndi:DMNShape id="s2" dmnElementRef="level"><dc:Bounds x="100" y="150" width="140" height="45"/></dmndi:DMNShape><dmndi:DMNEdge id="e1" dmnElementRef="ir1"><di:waypoint x="170" y="150"/><di:waypoint x="180" y="80"/></dmndi:DMNEdge></dmndi:DMNDiagram></dmndi:DMNDI>
</definitions>`);

const read = async (version: keyof typeof spaces) => {
  const { content } = await readFileContent('stages.xml', decisions(version));
  if (content.type !== 'model') throw new Error(content.type);
  return content;
};

describe('decisions of DMN', () => {
  it.each(['1.1', '1.5'] as const)('give what each rests on, in version %s', async (version) => {
    const { model, issues } = await read(version);
    expect(model.elements.map(({ type, name }) => [type, name])).toEqual([
      ['Decision', 'Stage'],
      ['Decision', 'Trend'],
      ['InputData', 'Level'],
      ['KnowledgeSource', 'Flood plan'],
    ]);
    expect(model.relations.map(({ type, from, to, waiting }) => [type, from, to, waiting])).toEqual([
      ['InformationRequirement', ['stage'], ['level'], undefined],
      ['InformationRequirement', ['stage'], ['trend'], undefined],
      ['KnowledgeRequirement', ['stage'], [], [{ end: 'to', target: 'library.dmn#curve' }]],
      ['AuthorityRequirement', ['stage'], ['plan'], undefined],
    ]);
    expect(issues).toEqual([]);
  });

  it('show their tables as tables', async () => {
    const { model } = await read('1.5');
    const { drafts, links } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
    expect(drafts[0]!.html).toBe(
      '<table><tbody><tr><th>Rule</th><th>Level</th><th>trend</th><th>stage</th></tr><tr><td>1</td><td>&gt; 3</td><td>&quot;rising&quot;</td><td>&quot;leave&quot;</td></tr><tr><td>2</td><td>&gt; 2</td><td>–</td><td>&quot;prepare&quot;</td></tr></tbody></table>',
    );
    expect(links.map(({ linkKind, draft, target }) => [linkKind, drafts[draft]!.title, target])).toContainEqual(['depends', 'Stage', 'level']);
  });

  it('are drawn with the mark at what needs', async () => {
    const { model } = await read('1.5');
    const drawn = buildDrawn(model, model.drawings[0]!, () => null);
    expect(drawn.shapes.map(({ figure, name }) => [figure, name])).toEqual([
      ['box', 'Stage'],
      ['input', 'Level'],
    ]);
    expect(drawn.routes).toMatchObject([{ from: 1, to: 0, start: 'none', end: 'filled' }]);
  });
});
