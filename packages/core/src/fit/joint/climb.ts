/** What is climbed, and how far. */
export interface Climb {
  /** Slopes asked for, at most. */
  readonly rounds: number;
  readonly step: number;
  /** Ends when a step is shorter than this. */
  readonly leastStep: number;
  /** A supergradient of the concave function at a point; null ends the climb. */
  readonly slopeAt: (point: Float64Array) => Float64Array | null;
}

/** How much space is stretched along the last turn, and how the step grows and shrinks: usual figures. */
const STRETCH = 0.5;
const GROW_AFTER = 3;
const GROWTH = 1.2;
const SHRINK = 0.9;

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < a.length; at += 1) sum += a[at]! * b[at]!;
  return sum;
}

/**
 * Climbs a concave function with kinks from the origin: Shor's r-algorithm, steps along the slope in a space that is
 * stretched along the difference of successive slopes (Shor, Minimization Methods for Non-differentiable Functions, 1985;
 * cited from memory). The caller keeps the best point it has seen.
 *
 * @param dimensions of the point
 */
export function climb(dimensions: number, { rounds, step, leastStep, slopeAt }: Climb): void {
  const point = new Float64Array(dimensions);
  const space = new Float64Array(dimensions * dimensions);
  for (let at = 0; at < dimensions; at += 1) space[at * dimensions + at] = 1;
  /** spaceᵀ · vector */
  const into = (vector: Float64Array) => {
    const out = new Float64Array(dimensions);
    for (let row = 0; row < dimensions; row += 1) {
      for (let column = 0; column < dimensions; column += 1) {
        out[column]! += space[row * dimensions + column]! * vector[row]!;
      }
    }
    return out;
  };
  let slope = slopeAt(point);
  let length = step;
  let asked = 1;
  while (slope !== null && asked < rounds) {
    const turned = into(slope);
    const size = Math.sqrt(dot(turned, turned));
    if (size === 0) return;
    const direction = new Float64Array(dimensions);
    for (let row = 0; row < dimensions; row += 1) {
      for (let column = 0; column < dimensions; column += 1) {
        direction[row]! += (space[row * dimensions + column]! * turned[column]!) / size;
      }
    }
    const stride = Math.sqrt(dot(direction, direction));
    let steps = 0;
    let next: Float64Array | null;
    do {
      for (let at = 0; at < dimensions; at += 1) point[at]! += length * direction[at]!;
      steps += 1;
      if (steps > GROW_AFTER) length *= GROWTH;
      next = slopeAt(point);
      asked += 1;
    } while (next !== null && asked < rounds && dot(direction, next) > 0);
    if (next === null) return;
    if (length * stride * steps < leastStep) return;
    if (steps === 1) length *= SHRINK;
    const before = slope;
    const turn = into(next.map((value, at) => value - before[at]!));
    const turnSize = Math.sqrt(dot(turn, turn));
    if (turnSize > 0) {
      for (let row = 0; row < dimensions; row += 1) {
        let along = 0;
        for (let column = 0; column < dimensions; column += 1) {
          along += (space[row * dimensions + column]! * turn[column]!) / turnSize;
        }
        for (let column = 0; column < dimensions; column += 1) {
          space[row * dimensions + column]! += ((STRETCH - 1) * along * turn[column]!) / turnSize;
        }
      }
    }
    slope = next;
  }
}
