/** How a tool writes ReqIF: prefixes, line ends, extensions. All of it is allowed by the standard. */
export interface Dialect {
  prefix: string;
  xhtml: string;
  indent: boolean;
  extensions: boolean;
  declaration: string;
}

export const dialects: Record<string, Dialect> = {
  'default namespace': { prefix: '', xhtml: 'xhtml', indent: true, extensions: true, declaration: '<?xml version="1.0" encoding="UTF-8"?>' },
  'every element prefixed': {
    prefix: 'reqif:',
    xhtml: 'h',
    indent: false,
    extensions: false,
    declaration: '<?xml version="1.0" encoding="utf-8" standalone="yes"?>',
  },
  'windows line ends': { prefix: '', xhtml: 'reqif-xhtml', indent: true, extensions: true, declaration: '<?xml version="1.0"?>' },
};

export interface GeneratedObject {
  id: string;
  foreign: string;
  text: string;
  priority?: 'High' | 'Low';
  methods?: ('Test' | 'Analysis')[];
  chapter?: string;
  weight?: number;
  due?: string;
}

export interface GeneratedNode {
  object: string;
  children?: GeneratedNode[];
}

/** A ReqIF file with seven datatypes, chapters and requirements, shared objects, relations, a relation group and tool extensions. */
export function reqifOf(dialect: Dialect, objects: GeneratedObject[], nodes: GeneratedNode[], relations: [from: string, to: string][] = []): string {
  const { prefix: p, xhtml: x } = dialect;
  const end = dialect.indent ? '\n' : '';
  const element = (name: string, content: string, attributes = '') => `<${p}${name}${attributes}>${end}${content}</${p}${name}>${end}`;
  const leaf = (name: string, content: string, attributes = '') => `<${p}${name}${attributes}>${content}</${p}${name}>${end}`;
  const id = (identifier: string, name = '') => ` IDENTIFIER="${identifier}" LAST-CHANGE="2026-10-01T10:00:00Z"${name ? ` LONG-NAME="${name}"` : ''}`;
  const value = (kind: string, attribute: string, content: string) =>
    element(`ATTRIBUTE-VALUE-${kind}`, element('DEFINITION', leaf(`ATTRIBUTE-DEFINITION-${kind}-REF`, attribute)), ` THE-VALUE="${content}"`);
  const rich = (attribute: string, content: string) =>
    element(
      'ATTRIBUTE-VALUE-XHTML',
      element('DEFINITION', leaf('ATTRIBUTE-DEFINITION-XHTML-REF', attribute)) + leaf('THE-VALUE', `<${x}:div>${content}</${x}:div>`),
    );
  const choice = (attribute: string, ids: string[]) =>
    element(
      'ATTRIBUTE-VALUE-ENUMERATION',
      element('VALUES', ids.map((one) => leaf('ENUM-VALUE-REF', one)).join('')) +
        element('DEFINITION', leaf('ATTRIBUTE-DEFINITION-ENUMERATION-REF', attribute)),
    );
  const options = (name: string, labels: string[]) =>
    element(
      'DATATYPE-DEFINITION-ENUMERATION',
      element(
        'SPECIFIED-VALUES',
        labels
          .map((label, key) =>
            element('ENUM-VALUE', element('PROPERTIES', `<${p}EMBEDDED-VALUE KEY="${key}" OTHER-CONTENT=""/>${end}`), id(`e-${label}`, label)),
          )
          .join(''),
      ),
      id(`d-${name}`, name),
    );
  const attribute = (kind: string, key: string, name: string, more = '', fallback = '') =>
    element(
      `ATTRIBUTE-DEFINITION-${kind}`,
      fallback + element('TYPE', leaf(`DATATYPE-DEFINITION-${kind}-REF`, kind === 'ENUMERATION' ? `d-${name}` : `d-${kind.toLowerCase()}`)),
      `${id(key, name)}${more}`,
    );
  const plain = ['STRING', 'XHTML', 'INTEGER', 'REAL', 'BOOLEAN', 'DATE'].map(
    (kind) => `<${p}DATATYPE-DEFINITION-${kind}${id(`d-${kind.toLowerCase()}`, kind)}/>${end}`,
  );
  const writeObject = (one: GeneratedObject) =>
    element(
      'SPEC-OBJECT',
      element(
        'VALUES',
        value('STRING', 'a-foreign', one.foreign) +
          rich('a-text', one.text.replace(/<(\/?)(\w+)/g, `<$1${x}:$2`)) +
          (one.chapter ? rich('a-chapter', one.chapter) : '') +
          (one.priority ? choice('a-priority', [`e-${one.priority}`]) : '') +
          (one.methods
            ? choice(
                'a-methods',
                one.methods.map((method) => `e-${method}`),
              )
            : '') +
          (one.weight === undefined ? '' : value('REAL', 'a-weight', String(one.weight))) +
          (one.due ? value('DATE', 'a-due', `${one.due}T00:00:00Z`) : ''),
      ) + element('TYPE', leaf('SPEC-OBJECT-TYPE-REF', 't-requirement')),
      id(one.id),
    );
  let hierarchy = 0;
  const writeNode = (node: GeneratedNode): string =>
    element(
      'SPEC-HIERARCHY',
      element('OBJECT', leaf('SPEC-OBJECT-REF', node.object)) + (node.children?.length ? element('CHILDREN', node.children.map(writeNode).join('')) : ''),
      id(`h-${++hierarchy}`),
    );
  const text = `${dialect.declaration}${end}<!-- written by a generator for tests -->${end}${element(
    'REQ-IF',
    element('THE-HEADER', element('REQ-IF-HEADER', leaf('REQ-IF-TOOL-ID', 'Generator') + leaf('TITLE', 'Gates &amp; locks'), ' IDENTIFIER="header"')) +
      element(
        'CORE-CONTENT',
        element(
          'REQ-IF-CONTENT',
          element('DATATYPES', plain.join('') + options('Priority', ['High', 'Low']) + options('Verification method', ['Test', 'Analysis'])) +
            element(
              'SPEC-TYPES',
              element(
                'SPEC-OBJECT-TYPE',
                element(
                  'SPEC-ATTRIBUTES',
                  attribute('STRING', 'a-foreign', 'ReqIF.ForeignID', '', element('DEFAULT-VALUE', value('STRING', 'a-foreign', 'none'))) +
                    attribute('XHTML', 'a-text', 'ReqIF.Text') +
                    attribute('XHTML', 'a-chapter', 'ReqIF.ChapterName') +
                    attribute('ENUMERATION', 'a-priority', 'Priority', ' MULTI-VALUED="false"') +
                    attribute('ENUMERATION', 'a-methods', 'Verification method', ' MULTI-VALUED="true"') +
                    attribute('REAL', 'a-weight', 'Weight') +
                    attribute('DATE', 'a-due', 'Due'),
                ),
                id('t-requirement', 'Requirement'),
              ) +
                `<${p}SPECIFICATION-TYPE${id('t-specification', 'Specification')}/>${end}` +
                `<${p}SPEC-RELATION-TYPE${id('t-derives', 'derived from')}/>${end}` +
                `<${p}RELATION-GROUP-TYPE${id('t-group', 'Group')}/>${end}`,
            ) +
            element('SPEC-OBJECTS', objects.map(writeObject).join('')) +
            element(
              'SPEC-RELATIONS',
              relations
                .map(([from, to], index) =>
                  element(
                    'SPEC-RELATION',
                    element('TYPE', leaf('SPEC-RELATION-TYPE-REF', 't-derives')) +
                      element('SOURCE', leaf('SPEC-OBJECT-REF', from)) +
                      element('TARGET', leaf('SPEC-OBJECT-REF', to)),
                    id(`r-${index + 1}`),
                  ),
                )
                .join(''),
            ) +
            element(
              'SPECIFICATIONS',
              element(
                'SPECIFICATION',
                element('TYPE', leaf('SPECIFICATION-TYPE-REF', 't-specification')) + element('CHILDREN', nodes.map(writeNode).join('')),
                id('s-1', 'Gates'),
              ),
            ) +
            element('SPEC-RELATION-GROUPS', element('RELATION-GROUP', element('TYPE', leaf('RELATION-GROUP-TYPE-REF', 't-group')), id('g-1', 'All'))),
        ),
      ) +
      (dialect.extensions ? element('TOOL-EXTENSIONS', element('REQ-IF-TOOL-EXTENSION', '<x:layout xmlns:x="urn:tool" columns="3">é &lt; 4</x:layout>')) : ''),
    `${p ? ` xmlns:${p.slice(0, -1)}` : ' xmlns'}="http://www.omg.org/spec/ReqIF/20110401/reqif.xsd" xmlns:${x}="http://www.w3.org/1999/xhtml"`,
  )}`;
  return dialect.declaration.includes('standalone') || dialect.indent ? text : text.replaceAll('\n', '\r\n');
}
