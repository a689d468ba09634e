import { meanOf } from '../measure/mean.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { type Angle, PLANES, type Plane, placeOfSlot, type Slot } from '../part/slot.js';

/** How an oval part lies: by how much its diameters differ, and where the largest is. */
export interface Oval {
  /** Largest less smallest diameter of the second lobe, nm. */
  readonly swing: Nanometres;
  /** Direction of the largest diameter, degrees, 0 to below 180. */
  readonly at: number;
  /** What of the diameters is left beside it, largest less smallest, nm: higher lobes, or scatter. */
  readonly rest: Nanometres;
}

/** How far a part is from a cylinder, by its readings; null where they do not tell. */
export interface PartShape {
  /** The largest difference of two diameters in one plane. */
  readonly outOfRound: Nanometres | null;
  /** The largest difference between the front and the rear plane, in one direction. */
  readonly taper: Nanometres | null;
  /** What the middle is larger than both ends, on average: a barrel; below zero an hourglass. */
  readonly barrel: Nanometres | null;
  /** The second lobe in the plane where it is largest; told by three directions or more, evenly over half a turn. */
  readonly oval: Oval | null;
}

type Sizes = ReadonlyMap<Plane, ReadonlyMap<Angle, number>>;

function byPlane(read: readonly { readonly slot: Slot; readonly size: number }[]): Sizes {
  const found = new Map<Plane, Map<Angle, number>>();
  for (const { slot, size } of read) {
    const { plane, angle } = placeOfSlot(slot);
    const own = found.get(plane) ?? new Map<Angle, number>();
    found.set(plane, own.set(angle, size));
  }
  return found;
}

const most = (values: readonly number[]): Nanometres | null =>
  values.length === 0 ? null : nanometres(Math.round(Math.max(...values)));

/**
 * The second lobe of diameters: `D(θ) = D0 + a cos 2θ + b sin 2θ` by least squares, which for directions that lie evenly over half a turn are the
 * sums of a Fourier series. A gauge with two points sees lobes of even number alone: with three or five of them every diameter is the same.
 *
 * @returns null with fewer than three directions, or where they do not lie evenly
 */
export function ovalOf(diameters: ReadonlyMap<Angle, number>): Oval | null {
  const read = [...diameters].sort(([one], [other]) => one - other);
  const count = read.length;
  const isEven = read.every(([angle], at) => angle - read[0]![0] === (at * 180) / count);
  if (count < 3 || !isEven) return null;
  const mean = meanOf(read.map(([, size]) => size));
  const sum = (of: (angle: number) => number) =>
    (2 / count) * read.reduce((total, [angle, size]) => total + (size - mean) * of((angle * Math.PI) / 90), 0);
  const [a, b] = [sum(Math.cos), sum(Math.sin)];
  const at = (Math.atan2(b, a) * 90) / Math.PI;
  const left = read.map(([angle, size]) => {
    const twice = (angle * Math.PI) / 90;
    return size - mean - a * Math.cos(twice) - b * Math.sin(twice);
  });
  return {
    swing: nanometres(Math.round(2 * Math.hypot(a, b))),
    at: ((at % 180) + 180) % 180,
    rest: nanometres(Math.round(Math.max(...left) - Math.min(...left))),
  };
}

const UNTOLD: PartShape = { outOfRound: null, taper: null, barrel: null, oval: null };

/** The shape of a part from its diameters, each in its plane and direction. */
export function partShape(read: readonly { readonly slot: Slot; readonly size: number }[]): PartShape {
  if (read.length < 2) return UNTOLD;
  const planes = byPlane(read);
  const inPlanes = PLANES.flatMap((plane) => {
    const sizes = [...(planes.get(plane)?.values() ?? [])];
    return sizes.length < 2 ? [] : [Math.max(...sizes) - Math.min(...sizes)];
  });
  const at = (plane: Plane, angle: Angle) => planes.get(plane)?.get(angle) ?? null;
  const angles = [...new Set([...planes.values()].flatMap((own) => [...own.keys()]))];
  const tapers = angles.flatMap((angle) => {
    const [front, rear] = [at('front', angle), at('rear', angle)];
    return front === null || rear === null ? [] : [Math.abs(front - rear)];
  });
  const bulges = angles.flatMap((angle) => {
    const [front, middle, rear] = [at('front', angle), at('middle', angle), at('rear', angle)];
    return front === null || middle === null || rear === null ? [] : [middle - (front + rear) / 2];
  });
  const ovals = PLANES.flatMap((plane) => ovalOf(planes.get(plane) ?? new Map()) ?? []);
  return {
    outOfRound: most(inPlanes),
    taper: most(tapers),
    barrel: bulges.length === 0 ? null : nanometres(Math.round(meanOf(bulges))),
    oval: ovals.reduce<Oval | null>((found, one) => (found === null || one.swing > found.swing ? one : found), null),
  };
}
