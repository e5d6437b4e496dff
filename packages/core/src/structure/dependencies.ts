/** Dependencies between things: edge e says that `from[e]` depends on `to[e]`, `weight[e]` times. No edge leads from a thing to itself, and no two join the same ends. */
export interface Dependencies {
  nodes: number;
  from: Int32Array;
  to: Int32Array;
  weight: Float64Array;
}
