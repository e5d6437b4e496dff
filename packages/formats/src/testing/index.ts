export * from './office-files.js';
export * from './pdf-files.js';
export * from './sample-texts.js';
