import { type ExchangeRecipe, type FieldType, type FieldTypeId, fieldTypeOf, phraseAt, type Scheme } from '@coomb/core';
import { useNames } from './use-names.js';
import type { ReqifItem } from './build-reqif-edits.js';

const escapeXml = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** What ReqIF calls the datatype of values that are kept so. */
const DATATYPES: Record<FieldType['exchange'], string> = {
  text: 'STRING',
  rich: 'XHTML',
  number: 'REAL',
  date: 'DATE',
  yesNo: 'BOOLEAN',
  choice: 'ENUMERATION',
};
const datatypeOf = (type: FieldTypeId) => DATATYPES[fieldTypeOf(type).exchange];

/**
 * A ReqIF file without objects, and the recipe that reads such files: a type for each kind of the items, an attribute for each field, a
 * relation type for each link kind among them; links to items that are not among them get an attribute that names their other ends.
 */
export function buildReqifSkeleton(
  scheme: Scheme,
  items: readonly Pick<ReqifItem, 'id' | 'kind' | 'ends'>[],
  title: string,
  now: string,
): { xml: string; recipe: ExchangeRecipe } {
  const stamp = `LAST-CHANGE="${now}"`;
  const listed = new Set(items.map((item) => item.id));
  const inside = new Set<string>();
  const inUse = new Set<string>();
  const outside = new Set<string>();
  for (const { kind, ends } of items)
    for (const { linkKind, reversed, other, ownUse, otherUse } of ends)
      if (listed.has(other)) {
        inside.add(linkKind);
        if (ownUse) inUse.add(`${linkKind} ${reversed ? 'to' : 'from'}`);
        if (otherUse) inUse.add(`${linkKind} ${reversed ? 'from' : 'to'}`);
      } else outside.add(`${kind} ${linkKind} ${reversed}`);
  const used = scheme.kinds.filter((kind) => items.some((item) => item.kind === kind.id));
  const links = scheme.linkKinds.filter((kind) => inside.has(kind.id));
  const enumerations: string[] = [];
  const types = used.map((kind) => {
    const own = [
      { id: `${kind.id}.reference`, name: 'ReqIF.ForeignID', type: 'STRING', more: '', meaning: { as: 'reference' as const } },
      { id: `${kind.id}.title`, name: 'ReqIF.Name', type: 'STRING', more: '', meaning: { as: 'title' as const } },
      { id: `${kind.id}.chapter`, name: 'ReqIF.ChapterName', type: 'STRING', more: '', meaning: { as: 'heading' as const } },
      { id: `${kind.id}.text`, name: 'ReqIF.Text', type: 'XHTML', more: '', meaning: { as: 'text' as const } },
      ...kind.fields.map((field) => {
        const datatype = datatypeOf(field.type);
        const isChoice = datatype === 'ENUMERATION' && (field.options?.length ?? 0) > 0;
        if (isChoice) enumerations.push(writeOptions(`${kind.id}.${field.id}`, field.label, field.options!, stamp));
        return {
          id: `${kind.id}.${field.id}`,
          name: field.label,
          type: !isChoice && datatype === 'ENUMERATION' ? 'STRING' : datatype,
          more: isChoice ? ` MULTI-VALUED="${fieldTypeOf(field.type).json === 'array'}"` : '',
          meaning: { as: 'field' as const, field: field.id },
        };
      }),
      ...scheme.linkKinds.flatMap((link) =>
        [false, true]
          .filter((reversed) => outside.has(`${kind.id} ${link.id} ${reversed}`))
          .map((reversed) => ({
            id: `${kind.id}.link.${link.id}.${reversed ? 'in' : 'out'}`,
            name: phraseAt(link, reversed ? 'to' : 'from'),
            type: 'STRING',
            more: '',
            meaning: { as: 'link' as const, linkKind: link.id, reversed },
          })),
      ),
    ];
    return { kind, own };
  });
  const datatype = (kind: string, more = '') => `<DATATYPE-DEFINITION-${kind} IDENTIFIER="d-${kind.toLowerCase()}" ${stamp} LONG-NAME="${kind}"${more}/>`;
  const definition = (type: string, id: string, name: string, more = '') =>
    `<ATTRIBUTE-DEFINITION-${type} IDENTIFIER="${escapeXml(id)}" ${stamp} LONG-NAME="${escapeXml(name)}"${more}><TYPE><DATATYPE-DEFINITION-${type}-REF>${type === 'ENUMERATION' ? `d-${escapeXml(id)}` : `d-${type.toLowerCase()}`}</DATATYPE-DEFINITION-${type}-REF></TYPE></ATTRIBUTE-DEFINITION-${type}>`;
  const definitions = types.map(
    ({ kind, own }) =>
      `<SPEC-OBJECT-TYPE IDENTIFIER="t-${kind.id}" ${stamp} LONG-NAME="${escapeXml(kind.label)}"><SPEC-ATTRIBUTES>${own
        .map(({ id, name, type, more }) => definition(type, id, name, more))
        .join('')}</SPEC-ATTRIBUTES></SPEC-OBJECT-TYPE>`,
  );
  const relations = links.map((kind) => {
    const uses = (['from', 'to'] as const)
      .filter((end) => inUse.has(`${kind.id} ${end}`))
      .map((end) => definition('STRING', `r-${kind.id}.${end}`, useNames[end]));
    const head = `<SPEC-RELATION-TYPE IDENTIFIER="r-${escapeXml(kind.id)}" ${stamp} LONG-NAME="${escapeXml(kind.phrase)}"`;
    return uses.length === 0 ? `${head}/>` : `${head}><SPEC-ATTRIBUTES>${uses.join('')}</SPEC-ATTRIBUTES></SPEC-RELATION-TYPE>`;
  });
  const plain = [
    datatype('STRING', ' MAX-LENGTH="1000000"'),
    datatype('XHTML'),
    datatype('REAL', ' ACCURACY="10" MAX="1.0E300" MIN="-1.0E300"'),
    datatype('DATE'),
    datatype('BOOLEAN'),
  ];
  const xml = `<?xml version="1.0" encoding="UTF-8"?>
<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd" xmlns:xhtml="http://www.w3.org/1999/xhtml"><THE-HEADER><REQ-IF-HEADER IDENTIFIER="header"><CREATION-TIME>${now}</CREATION-TIME><REQ-IF-TOOL-ID>Coomb</REQ-IF-TOOL-ID><REQ-IF-VERSION>1.0</REQ-IF-VERSION><SOURCE-TOOL-ID>Coomb</SOURCE-TOOL-ID><TITLE>${escapeXml(title)}</TITLE></REQ-IF-HEADER></THE-HEADER><CORE-CONTENT><REQ-IF-CONTENT>
<DATATYPES>${plain.join('')}${enumerations.join('')}</DATATYPES>
<SPEC-TYPES>${definitions.join('')}<SPECIFICATION-TYPE IDENTIFIER="t-specification" ${stamp} LONG-NAME="Specification"/>${relations.join('')}</SPEC-TYPES>
<SPEC-OBJECTS></SPEC-OBJECTS>
<SPEC-RELATIONS></SPEC-RELATIONS>
<SPECIFICATIONS><SPECIFICATION IDENTIFIER="specification" ${stamp} LONG-NAME="${escapeXml(title)}"><TYPE><SPECIFICATION-TYPE-REF>t-specification</SPECIFICATION-TYPE-REF></TYPE></SPECIFICATION></SPECIFICATIONS>
</REQ-IF-CONTENT></CORE-CONTENT></REQ-IF>
`;
  const recipe: ExchangeRecipe = {
    name: `Export of ${title}`,
    types: types.map(({ kind, own }) => ({
      type: `t-${kind.id}`,
      name: kind.label,
      kind: kind.id,
      attributes: own.map(({ id, name, meaning }) => ({ id, name, meaning })),
    })),
    relations: links.map((kind) => ({ type: `r-${kind.id}`, name: kind.phrase, linkKind: kind.id, reversed: false })),
  };
  return { xml, recipe };
}

function writeOptions(id: string, name: string, options: readonly string[], stamp: string): string {
  const values = options.map(
    (label, key) =>
      `<ENUM-VALUE IDENTIFIER="e-${escapeXml(id)}-${key}" ${stamp} LONG-NAME="${escapeXml(label)}"><PROPERTIES><EMBEDDED-VALUE KEY="${key}" OTHER-CONTENT=""/></PROPERTIES></ENUM-VALUE>`,
  );
  return `<DATATYPE-DEFINITION-ENUMERATION IDENTIFIER="d-${escapeXml(id)}" ${stamp} LONG-NAME="${escapeXml(name)}"><SPECIFIED-VALUES>${values.join('')}</SPECIFIED-VALUES></DATATYPE-DEFINITION-ENUMERATION>`;
}
