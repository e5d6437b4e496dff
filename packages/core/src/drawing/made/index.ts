export * from './draw-made.js';
export * from './made-graph.js';
export * from './made-ground.js';
export * from './place-made.js';
export * from './sorts/index.js';
export type * from './sorts/made-sort.js';
