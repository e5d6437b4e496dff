import type { FileFormat } from '../format/file-format.js';
import { isXml, namespaceOf, rootOf } from '../xml/looks-like-xml.js';

export const bpmn: FileFormat = {
  id: 'bpmn',
  label: 'Process (BPMN 2.0)',
  mediaType: 'application/xml',
  extensions: ['bpmn'],
  fits: (bytes, extension) => isXml(bytes) && (extension === 'bpmn' || (rootOf(bytes) === 'definitions' && /BPMN/i.test(namespaceOf(bytes)))),
  read: async (bytes) => ({ type: 'model', ...(await (await import('./read-bpmn.js')).readBpmn(bytes)) }),
};
