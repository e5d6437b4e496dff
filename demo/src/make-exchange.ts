/** Chapters of the supplier's specification of the gate drive: title, then reference, sentence, priority, ways to verify. All invented. */
const chapters: [title: string, requirements: [string, string, 'High' | 'Medium' | 'Low', string][]][] = [
  [
    'Motion',
    [
      ['GD-101', 'The drive shall move a gate of up to 4.2 t over its full travel in no more than 110 s.', 'High', 'Test'],
      ['GD-102', 'The drive shall hold any position within 3 mm for 24 hours without power.', 'High', 'Test Analysis'],
      ['GD-103', 'The drive shall start and stop without exceeding 1.4 times its rated torque.', 'Medium', 'Test'],
      ['GD-104', 'The drive shall accept set positions in steps of 1 mm.', 'Medium', 'Test'],
      ['GD-105', 'The drive shall report its position at least ten times a second while it moves.', 'High', 'Test'],
    ],
  ],
  [
    'Protection',
    [
      ['GD-201', 'The drive shall stop within 0.3 s when its torque exceeds 1.6 times the rated value.', 'High', 'Test'],
      ['GD-202', 'The drive shall stop at either end switch even when its controller has failed.', 'High', 'Test Inspection'],
      ['GD-203', 'The drive shall refuse to move while its hand crank is engaged.', 'High', 'Test'],
      ['GD-204', 'The drive shall survive being under water for two hours.', 'Medium', 'Test'],
      ['GD-205', 'The drive shall report a blocked gate within 1 s.', 'High', 'Test'],
    ],
  ],
  [
    'Upkeep',
    [
      ['GD-301', 'The drive shall be exchangeable by two people in four hours.', 'Medium', 'Demonstration'],
      ['GD-302', 'The drive shall count its hours of movement and its starts.', 'Low', 'Test'],
      ['GD-303', 'Every wearing part of the drive shall be reachable from the bridge.', 'Medium', 'Inspection'],
    ],
  ],
];

const escapeXml = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
const stamp = 'LAST-CHANGE="2026-09-15T09:00:00Z"';

/** The supplier's requirements of the gate drive in ReqIF 1.2, with a relation type that the two firms agreed on, and an extension of the supplier's tool. */
export function makeExchange(issue: 1 | 2 = 1): string {
  const objects: string[] = [];
  const relations: string[] = [];
  const hierarchy = chapters.map(([title, requirements], chapter) => {
    objects.push(object(`gd-c${chapter + 1}`, rich('a-chapter', escapeXml(title))));
    const rows = revise(requirements, issue);
    const nodes = rows.map(([reference, text, priority, methods]) => {
      const id = reference.toLowerCase();
      const methodIds = methods.split(' ').map((method) => `<ENUM-VALUE-REF>e-${method.toLowerCase()}</ENUM-VALUE-REF>`);
      objects.push(
        object(
          id,
          `${plain('a-id', reference)}${rich('a-text', `<xhtml:p>${escapeXml(text)}</xhtml:p>`)}${choice('a-priority', [`<ENUM-VALUE-REF>e-${priority.toLowerCase()}</ENUM-VALUE-REF>`])}${choice('a-method', methodIds)}`,
        ),
      );
      return node(id, '');
    });
    return node(`gd-c${chapter + 1}`, `<CHILDREN>${nodes.join('')}</CHILDREN>`);
  });
  for (const [from, to] of [
    ['gd-203', 'gd-201'],
    ['gd-205', 'gd-201'],
    ['gd-105', 'gd-101'],
  ])
    relations.push(
      `<SPEC-RELATION IDENTIFIER="rel-${from}-${to}" ${stamp}><TYPE><SPEC-RELATION-TYPE-REF>t-derives</SPEC-RELATION-TYPE-REF></TYPE><SOURCE><SPEC-OBJECT-REF>${from}</SPEC-OBJECT-REF></SOURCE><TARGET><SPEC-OBJECT-REF>${to}</SPEC-OBJECT-REF></TARGET></SPEC-RELATION>`,
    );
  return `<?xml version="1.0" encoding="UTF-8"?>
<REQ-IF xmlns="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd" xmlns:xhtml="http://www.w3.org/1999/xhtml">
<THE-HEADER><REQ-IF-HEADER IDENTIFIER="header"><COMMENT>Issue ${issue}</COMMENT><CREATION-TIME>2026-09-15T09:00:00Z</CREATION-TIME><REQ-IF-TOOL-ID>Tolland Drives exchange</REQ-IF-TOOL-ID><REQ-IF-VERSION>1.0</REQ-IF-VERSION><SOURCE-TOOL-ID>Tolland Drives exchange</SOURCE-TOOL-ID><TITLE>Gate drive requirements</TITLE></REQ-IF-HEADER></THE-HEADER>
<CORE-CONTENT><REQ-IF-CONTENT>
<DATATYPES><DATATYPE-DEFINITION-STRING IDENTIFIER="d-string" ${stamp} LONG-NAME="Short text" MAX-LENGTH="255"/><DATATYPE-DEFINITION-XHTML IDENTIFIER="d-xhtml" ${stamp} LONG-NAME="Text"/>${options('d-priority', 'Priority', ['High', 'Medium', 'Low'])}${options('d-method', 'Method', ['Test', 'Analysis', 'Inspection', 'Demonstration'])}</DATATYPES>
<SPEC-TYPES><SPEC-OBJECT-TYPE IDENTIFIER="t-object" ${stamp} LONG-NAME="Requirement"><SPEC-ATTRIBUTES>${attribute('STRING', 'a-id', 'ReqIF.ForeignID', 'd-string')}${attribute('XHTML', 'a-text', 'ReqIF.Text', 'd-xhtml')}${attribute('XHTML', 'a-chapter', 'ReqIF.ChapterName', 'd-xhtml')}${attribute('ENUMERATION', 'a-priority', 'Priority', 'd-priority')}${attribute('ENUMERATION', 'a-method', 'Verification method', 'd-method', ' MULTI-VALUED="true"')}</SPEC-ATTRIBUTES></SPEC-OBJECT-TYPE><SPECIFICATION-TYPE IDENTIFIER="t-spec" ${stamp} LONG-NAME="Specification"/><SPEC-RELATION-TYPE IDENTIFIER="t-derives" ${stamp} LONG-NAME="is derived from"/></SPEC-TYPES>
<SPEC-OBJECTS>
${objects.join('\n')}
</SPEC-OBJECTS>
<SPEC-RELATIONS>
${relations.join('\n')}
</SPEC-RELATIONS>
<SPECIFICATIONS><SPECIFICATION IDENTIFIER="spec-1" ${stamp} LONG-NAME="Gate drive"><TYPE><SPECIFICATION-TYPE-REF>t-spec</SPECIFICATION-TYPE-REF></TYPE><CHILDREN>${hierarchy.join('')}</CHILDREN></SPECIFICATION></SPECIFICATIONS>
</REQ-IF-CONTENT></CORE-CONTENT>
<TOOL-EXTENSIONS><REQ-IF-TOOL-EXTENSION><td:view xmlns:td="urn:tolland-drives" columns="id text priority"/></REQ-IF-TOOL-EXTENSION></TOOL-EXTENSIONS>
</REQ-IF>
`;
}

/** What the supplier changed in the second issue. */
function revise(requirements: (typeof chapters)[number][1], issue: 1 | 2): (typeof chapters)[number][1] {
  if (issue === 1) return requirements;
  const kept = requirements.filter(([reference]) => reference !== 'GD-104');
  const next = kept.map(([reference, text, ...rest]): (typeof kept)[number] => [
    reference,
    reference === 'GD-201' ? text.replace('0.3 s', '0.2 s') : text,
    ...rest,
  ]);
  if (requirements[0]![0] === 'GD-301') next.push(['GD-304', 'The drive shall tell two weeks ahead when its gear oil wants changing.', 'Low', 'Demonstration']);
  return next;
}

const object = (id: string, values: string) =>
  `<SPEC-OBJECT IDENTIFIER="${id}" ${stamp}><VALUES>${values}</VALUES><TYPE><SPEC-OBJECT-TYPE-REF>t-object</SPEC-OBJECT-TYPE-REF></TYPE></SPEC-OBJECT>`;
const node = (id: string, children: string) =>
  `<SPEC-HIERARCHY IDENTIFIER="h-${id}" ${stamp}><OBJECT><SPEC-OBJECT-REF>${id}</SPEC-OBJECT-REF></OBJECT>${children}</SPEC-HIERARCHY>`;
const definition = (kind: string, id: string) => `<DEFINITION><ATTRIBUTE-DEFINITION-${kind}-REF>${id}</ATTRIBUTE-DEFINITION-${kind}-REF></DEFINITION>`;
const plain = (id: string, text: string) => `<ATTRIBUTE-VALUE-STRING THE-VALUE="${escapeXml(text)}">${definition('STRING', id)}</ATTRIBUTE-VALUE-STRING>`;
const rich = (id: string, html: string) =>
  `<ATTRIBUTE-VALUE-XHTML>${definition('XHTML', id)}<THE-VALUE><xhtml:div>${html}</xhtml:div></THE-VALUE></ATTRIBUTE-VALUE-XHTML>`;
const choice = (id: string, references: string[]) =>
  `<ATTRIBUTE-VALUE-ENUMERATION>${definition('ENUMERATION', id)}<VALUES>${references.join('')}</VALUES></ATTRIBUTE-VALUE-ENUMERATION>`;
const options = (id: string, name: string, labels: string[]) =>
  `<DATATYPE-DEFINITION-ENUMERATION IDENTIFIER="${id}" ${stamp} LONG-NAME="${name}"><SPECIFIED-VALUES>${labels
    .map(
      (label, key) =>
        `<ENUM-VALUE IDENTIFIER="e-${label.toLowerCase()}" ${stamp} LONG-NAME="${label}"><PROPERTIES><EMBEDDED-VALUE KEY="${key}" OTHER-CONTENT=""/></PROPERTIES></ENUM-VALUE>`,
    )
    .join('')}</SPECIFIED-VALUES></DATATYPE-DEFINITION-ENUMERATION>`;
const attribute = (kind: string, id: string, name: string, datatype: string, more = '') =>
  `<ATTRIBUTE-DEFINITION-${kind} IDENTIFIER="${id}" ${stamp} LONG-NAME="${name}"${more}><TYPE><DATATYPE-DEFINITION-${kind}-REF>${datatype}</DATATYPE-DEFINITION-${kind}-REF></TYPE></ATTRIBUTE-DEFINITION-${kind}>`;
