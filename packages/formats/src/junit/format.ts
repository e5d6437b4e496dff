import type { FileFormat } from '../format/file-format.js';
import { isXml, rootOf } from '../xml/looks-like-xml.js';

export const junit: FileFormat = {
  id: 'junit',
  label: 'Test results (JUnit XML)',
  mediaType: 'application/xml',
  extensions: ['xml'],
  fits: (bytes) => isXml(bytes) && /^testsuites?$/.test(rootOf(bytes)),
  read: async (bytes) => {
    const results = await (await import('./read-junit.js')).readJunit(bytes);
    return { type: 'results', results, issues: results.issues };
  },
};
