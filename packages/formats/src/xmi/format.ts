import type { FileFormat } from '../format/file-format.js';
import { isArchive } from '../archive/zip.js';
import { isXml } from '../xml/looks-like-xml.js';

export const xmi: FileFormat = {
  id: 'xmi',
  label: 'Model (UML in XMI)',
  mediaType: 'application/xml',
  extensions: ['xmi', 'uml', 'xml', 'zip'],
  fits: (bytes, extension) => isXml(bytes) || extension === 'xmi' || extension === 'uml' || (extension === 'zip' && isArchive(bytes)),
  read: async (bytes) => ({ type: 'model', ...(await (await import('./read-xmi.js')).readXmi(bytes)) }),
};
