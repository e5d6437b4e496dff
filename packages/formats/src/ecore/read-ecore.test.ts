import { applyModelRecipe, defaultScheme, proposeModelRecipe } from '@coomb/core';
import { describe, expect, it } from 'vitest';
import { readFileContent } from '../reading.js';

const file = Buffer.from(`<?xml version="1.0" encoding="UTF-8"?>
<ecore:EPackage xmi:version="2.0" xmlns:xmi="http://www.omg.org/XMI" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xmlns:ecore="http://www.eclipse.org/emf/2002/Ecore" name="weir" nsURI="urn:weir" nsPrefix="w">
  <eClassifiers xsi:type="ecore:EClass" name="Gate" eSuperTypes="#//Part #//missing">
    <eAnnotations source="docs"><details key="documentation" value="Lifts."/></eAnnotations>
    <eStructuralFeatures xsi:type="ecore:EAttribute" name="travel" lowerBound="1" eType="ecore:EDataType http://www.eclipse.org/emf/2002/Ecore#//EDouble" defaultValueLiteral="3.4"/>
    <eStructuralFeatures xsi:type="ecore:EReference" name="drive" upperBound="-1" eType="#//drives/Drive" containment="true"/>
    <eOperations name="move" eType="#//Mode"><eParameters name="to" eType="ecore:EDataType http://www.eclipse.org/emf/2002/Ecore#//EDouble"/></eOperations>
  </eClassifiers>
  <eClassifiers xsi:type="ecore:EClass" name="Part" abstract="true"/>
  <eClassifiers xsi:type="ecore:EEnum" name="Mode"><eLiterals name="up"/><eLiterals name="down" value="1"/></eClassifiers>
  <eSubpackages name="drives" nsURI="urn:drives" nsPrefix="d"><eClassifiers xsi:type="ecore:EClass" name="Drive"/></eSubpackages>
</ecore:EPackage>`);

describe('an Ecore model', () => {
  it('gives packages, classes, parts and details by their path of names', async () => {
    const { content } = await readFileContent('weir.ecore', file);
    if (content.type !== 'model') throw new Error(content.type);
    const { model, issues } = content;
    expect(model.notation).toBe('ecore');
    const { drafts, links } = applyModelRecipe(defaultScheme, proposeModelRecipe(defaultScheme, model), model);
    expect(drafts.map(({ kind, title, externalId, html }) => [kind, title, externalId, html])).toEqual([
      ['package', 'weir', '/', ''],
      ['component', 'Gate', '//Gate', '<p>Lifts.</p>'],
      ['part', 'drive', '//Gate/drive', ''],
      ['component', 'Part', '//Part', ''],
      ['package', 'drives', '//drives', ''],
      ['component', 'Drive', '//drives/Drive', ''],
    ]);
    expect(drafts[1]!.details).toEqual([
      { sort: 'attribute', text: 'travel: Double = 3.4', element: '//Gate/travel' },
      { sort: 'operation', text: 'move(to: Double): Mode', element: '//Gate/move' },
    ]);
    expect(links.map(({ draft, linkKind, target }) => [drafts[draft]!.title, linkKind, target])).toEqual([
      ['drive', 'typed', '//drives/Drive'],
      ['Gate', 'depends', '//Part'],
    ]);
    expect(issues).toMatchObject([{ code: 'relation-dangling', message: expect.stringContaining('missing') }]);
  });
});
