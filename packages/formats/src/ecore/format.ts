import type { FileFormat } from '../format/file-format.js';
import { isXml, namespaceOf, rootOf } from '../xml/looks-like-xml.js';

export const ecore: FileFormat = {
  id: 'ecore',
  label: 'Model (Ecore)',
  mediaType: 'application/xml',
  extensions: ['ecore'],
  fits: (bytes, extension) => isXml(bytes) && (extension === 'ecore' || (rootOf(bytes) === 'EPackage' && /Ecore/.test(namespaceOf(bytes)))),
  read: async (bytes) => ({ type: 'model', ...(await (await import('./read-ecore.js')).readEcore(bytes)) }),
};
