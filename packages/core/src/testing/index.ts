export * from './random.js';
export * from './strange-scheme.js';
