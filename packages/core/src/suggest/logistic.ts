/**
 * Weights of a logistic regression with a ridge towards `prior` (iteratively reweighted least squares; Hastie, Tibshirani, Friedman, "The Elements of
 * Statistical Learning", 4.4.1). `rows` are features without the constant, which is the last of the weights and is not held back.
 */
export function fitLogistic(rows: readonly ArrayLike<number>[], labels: ArrayLike<number>, prior: readonly number[], ridge: number, rounds = 12): number[] {
  const size = prior.length;
  const last = size - 1;
  const weights = Float64Array.from(prior);
  for (let round = 0; round < rounds; round++) {
    const gradient = new Float64Array(size);
    const hessian = new Float64Array(size * size);
    for (let k = 0; k < size - 1; k++) {
      gradient[k] = ridge * (weights[k]! - prior[k]!);
      hessian[k * size + k] = ridge;
    }
    hessian[size * size - 1] = 1e-6;
    for (let index = 0; index < rows.length; index++) {
      const row = rows[index]!;
      const chance = sigmoid(score(weights, row));
      const error = chance - labels[index]!;
      const slope = Math.max(1e-6, chance * (1 - chance));
      for (let k = 0; k < last; k++) {
        const own = row[k]!;
        if (own === 0) continue;
        gradient[k]! += error * own;
        const by = slope * own;
        for (let l = k; l < last; l++) hessian[k * size + l]! += by * row[l]!;
        hessian[k * size + last]! += by;
      }
      gradient[last]! += error;
      hessian[last * size + last]! += slope;
    }
    const step = solve(hessian, gradient, size);
    let largest = 0;
    for (let k = 0; k < size; k++) {
      // A step is held back where the data are almost parted: the next one is nearer.
      const by = Math.max(-4, Math.min(4, step[k]!));
      weights[k]! -= by;
      largest = Math.max(largest, Math.abs(by));
    }
    if (largest < 1e-4) break;
  }
  return [...weights];
}

export const sigmoid = (value: number): number => 1 / (1 + Math.exp(-value));

export function score(weights: ArrayLike<number>, row: ArrayLike<number>): number {
  let sum = weights[weights.length - 1]!;
  for (let k = 0; k < weights.length - 1; k++) sum += weights[k]! * row[k]!;
  return sum;
}

/** Solves a symmetric positive system of which the upper half is given (Cholesky). */
function solve(upper: Float64Array, right: Float64Array, size: number): Float64Array {
  const lower = new Float64Array(size * size);
  for (let i = 0; i < size; i++)
    for (let j = 0; j <= i; j++) {
      let sum = upper[j * size + i]!;
      for (let k = 0; k < j; k++) sum -= lower[i * size + k]! * lower[j * size + k]!;
      lower[i * size + j] = i === j ? Math.sqrt(Math.max(sum, 1e-9)) : sum / lower[j * size + j]!;
    }
  const out = right.slice();
  for (let i = 0; i < size; i++) {
    for (let k = 0; k < i; k++) out[i]! -= lower[i * size + k]! * out[k]!;
    out[i]! /= lower[i * size + i]!;
  }
  for (let i = size - 1; i >= 0; i--) {
    for (let k = i + 1; k < size; k++) out[i]! -= lower[k * size + i]! * out[k]!;
    out[i]! /= lower[i * size + i]!;
  }
  return out;
}
