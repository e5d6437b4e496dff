import { applyModelRecipe, defaultScheme, proposeModelRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readFileContent } from './file-formats.js';

/** Files in which elements, attributes and values are called what a programming language calls something else. */
const files: [name: string, text: (word: string) => string][] = [
  [
    'weir.xmi',
    (word) =>
      `<xmi:XMI xmlns:xmi="http://www.omg.org/spec/XMI/20131001" xmlns:uml="http://www.omg.org/spec/UML/20161101" xmlns:own="http://weir.example/own"><uml:Model xmi:id="m" name="Weir"><packagedElement xmi:type="uml:Class" xmi:id="a" name="Gate" ${word}="x"><${word}/><${word}>y</${word}><ownedAttribute xmi:type="uml:${word}" xmi:id="q" name="z"/><ownedAttribute xmi:type="uml:Property" xmi:id="r" name="z" type="${word}"/></packagedElement></uml:Model><own:${word} xmi:id="s" base_Class="a" ${word}="v"/></xmi:XMI>`,
  ],
  [
    'pass.bpmn',
    (word) =>
      `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d"><process id="p" name="Pass"><task id="t" name="Open" ${word}="1"><${word} id="c"/></task><${word} id="x" name="X"/><sequenceFlow id="f" sourceRef="t" targetRef="${word}"/></process></definitions>`,
  ],
  [
    'level.dmn',
    (word) =>
      `<definitions xmlns="https://www.omg.org/spec/DMN/20191111/MODEL/" id="d" name="Level"><decision id="e" name="Raise" ${word}="1"><${word}/></decision><${word} id="z" name="Z"/></definitions>`,
  ],
  [
    'drive.ssd',
    (word) =>
      `<ssd:SystemStructureDescription xmlns:ssd="http://ssp-standard.org/SSP1/SystemStructureDescription" version="1.0" name="Drive"><ssd:System name="Drive"><ssd:Elements><ssd:Component name="${word}" source="x"/><ssd:${word}/></ssd:Elements></ssd:System></ssd:SystemStructureDescription>`,
  ],
  [
    'gate.ecore',
    (word) =>
      `<ecore:EPackage xmlns:xmi="http://www.omg.org/XMI" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xmlns:ecore="http://www.eclipse.org/emf/2002/Ecore" xmi:version="2.0" name="gate"><eClassifiers xsi:type="ecore:EClass" name="${word}"><eStructuralFeatures xsi:type="ecore:EAttribute" name="${word}" ${word}="1"/><${word}/></eClassifiers></ecore:EPackage>`,
  ],
  [
    'needs.reqif',
    (word) =>
      `<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd"><CORE-CONTENT><REQ-IF-CONTENT><${word}/><SPEC-OBJECTS><SPEC-OBJECT IDENTIFIER="${word}" LAST-CHANGE="2026-01-01T00:00:00Z"><${word}/></SPEC-OBJECT></SPEC-OBJECTS></REQ-IF-CONTENT></CORE-CONTENT></REQ-IF>`,
  ],
  [
    'results.xml',
    (word) => `<testsuites><testsuite name="${word}"><testcase classname="${word}" name="${word}" ${word}="1"><${word}/></testcase></testsuite></testsuites>`,
  ],
  ['needs.csv', (word) => `ID,${word}\n1,2`],
  ['needs.md', (word) => `# ${word}\n\n| ${word} | b |\n|---|---|\n| 1 | 2 |\n`],
];

/** Everything that is told, with what is no text of the file shown. */
const tell = (value: unknown) => JSON.stringify(value, (_, one: unknown) => (one instanceof Map ? [...one] : typeof one === 'function' ? 'A FUNCTION' : one));

describe.each(['constructor', 'toString', 'valueOf', 'hasOwnProperty', '__proto__'])('what is called %s', (word) => {
  it.each(files)('is read like any other word: %s', async (name, text) => {
    const { content } = await readFileContent(name, Buffer.from(text(word)));
    expect(tell(content)).not.toMatch(/A FUNCTION|native code/);
    // Underscores are bold type in Markdown.
    expect(tell(content)).toContain(word.replaceAll('_', ''));
    if (content.type !== 'model') return;
    // As it comes from the worker that read it.
    const model = structuredClone(content.model);
    const recipe = proposeModelRecipe(defaultScheme, model);
    const harvest = applyModelRecipe(defaultScheme, recipe, model);
    expect(tell([recipe, harvest])).not.toMatch(/A FUNCTION|native code/);
    expect(harvest.drafts.length).toBeGreaterThan(0);
  });
});
