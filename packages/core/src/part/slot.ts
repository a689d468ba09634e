/** Planes along a part in which it is read, from the front. */
export const PLANES = ['front', 'middle', 'rear'] as const;
export type Plane = (typeof PLANES)[number];

/** Directions across a part, degrees from the first: of a bore from that of the bolts. */
const ANGLES = [0, 30, 45, 60, 90, 120, 135, 150] as const;
export type Angle = (typeof ANGLES)[number];

/**
 * Where on a part a reading is taken: a plane and a direction. A bore in the direction of its bolts is named by its plane alone: that is what
 * tells its size; across it is only read to see how round it is.
 */
export type Slot = Plane | `${Plane}-${Angle}`;

/** A role of a part: a housing, or a journal in it. */
type Role = 'housing' | 'journal';

/** The slot of a plane and a direction. */
export function slotAt(role: Role, plane: Plane, angle: Angle): Slot {
  return role === 'housing' && angle === 0 ? plane : `${plane}-${angle}`;
}

function slotsOf(role: Role): readonly Slot[] {
  return PLANES.flatMap((plane) => ANGLES.map((angle) => slotAt(role, plane, angle)));
}

/** Where bores may be read, and where journals may, plane by plane. */
export const BORE_SLOTS = slotsOf('housing');
export const JOURNAL_SLOTS = slotsOf('journal');

/** Every slot of any part. */
export const SLOTS = [...new Set([...BORE_SLOTS, ...JOURNAL_SLOTS])] as unknown as [Slot, ...Slot[]];

/** A plane and a direction. */
interface PlaceOnPart {
  readonly plane: Plane;
  readonly angle: Angle;
}

/** Worked out once: it is asked for with every figure. */
const PLACES: Readonly<Record<Slot, PlaceOnPart>> = Object.fromEntries(
  SLOTS.map((slot) => {
    const [plane, angle = '0'] = slot.split('-');
    return [slot, { plane, angle: Number(angle) }];
  }),
) as Record<Slot, PlaceOnPart>;

/**
 * The plane and the direction of a slot.
 *
 * @example placeOfSlot('rear-90') // { plane: 'rear', angle: 90 }
 */
export function placeOfSlot(slot: Slot): PlaceOnPart {
  return PLACES[slot];
}

/** The directions of a scheme, by how many: evenly over half a turn, which a gauge with two points sees twice. */
const DIRECTIONS = {
  1: [0],
  2: [0, 90],
  3: [0, 60, 120],
  4: [0, 45, 90, 135],
  6: [0, 30, 60, 90, 120, 150],
} as const satisfies Readonly<Record<number, readonly Angle[]>>;
export type DirectionCount = keyof typeof DIRECTIONS;
export const DIRECTION_COUNTS = [1, 2, 3, 4, 6] as const satisfies readonly DirectionCount[];

const PLANES_OF = { 1: ['front'], 2: ['front', 'rear'], 3: PLANES } as const satisfies Readonly<
  Record<number, readonly Plane[]>
>;
export type PlaneCount = keyof typeof PLANES_OF;

/**
 * The slots of a scheme, plane by plane.
 *
 * @example schemeSlots('housing', 2, 1) // ['front', 'rear']
 */
export function schemeSlots(role: Role, planes: PlaneCount, directions: DirectionCount): Slot[] {
  return PLANES_OF[planes].flatMap((plane) => DIRECTIONS[directions].map((angle) => slotAt(role, plane, angle)));
}

/**
 * What a slot is called.
 *
 * @example slotName('front-90') // 'Front, 90°'
 */
export function slotName(slot: Slot): string {
  const { plane, angle } = placeOfSlot(slot);
  const word = plane.replace(/^./u, (letter) => letter.toUpperCase());
  return slot === plane ? `${word} plane` : `${word}, ${angle}°`;
}
