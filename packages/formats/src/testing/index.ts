export * from './office-files.js';
export * from './pdf-files.js';
