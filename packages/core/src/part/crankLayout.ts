import { z } from 'zod';

/** Fewest and most mains of a shaft, and the most rods. */
export const MAINS_RANGE = { fewest: 1, most: 20 } as const;
export const MOST_RODS = 24;

export const crankpinSchema = z.strictObject({
  /** The pin stands between main `bay` and main `bay + 1`; on a shaft of one main it is overhung behind it. */
  bay: z
    .int()
    .min(1)
    .max(MAINS_RANGE.most - 1),
  /** Angle of its throw seen from the front, degrees clockwise from the top. */
  angle: z.number().min(0).lt(360),
  /** Rods side by side on it. */
  rods: z.union([z.literal(1), z.literal(2)]),
});

/** What the shaft looks like from the side: mains, pins in their throws, the main that takes the thrust. */
export const crankLayoutSchema = z
  .strictObject({
    mains: z.int().min(MAINS_RANGE.fewest).max(MAINS_RANGE.most),
    pins: z.array(crankpinSchema).max(MOST_RODS),
    thrustMain: z.int().min(1).nullable(),
  })
  .superRefine((layout, context) => {
    if (layout.thrustMain !== null && layout.thrustMain > layout.mains) {
      context.addIssue({
        code: 'custom',
        path: ['thrustMain'],
        message: `the engine has ${layout.mains} mains; enter a thrust main from 1 to ${layout.mains}`,
      });
    }
    layout.pins.forEach((pin, at) => {
      if (pin.bay >= Math.max(2, layout.mains)) {
        context.addIssue({
          code: 'custom',
          path: ['pins', at, 'bay'],
          message: `pin ${at + 1} is behind the last main; there are ${layout.mains - 1} bays`,
        });
      }
    });
  });
export type CrankLayout = z.infer<typeof crankLayoutSchema>;

/**
 * Usual throws by number of pins, degrees from the top. Common practice for in-line shafts (1-3-4-2 and 1-5-3-6-2-4 firing
 * orders) and for the two-plane shaft of a V8; the fitter can change each.
 */
const USUAL_THROWS: Readonly<Record<string, readonly number[]>> = {
  '1×1': [0],
  '2×1': [0, 180],
  '3×1': [0, 120, 240],
  '4×1': [0, 180, 180, 0],
  '5×1': [0, 144, 216, 288, 72],
  '6×1': [0, 120, 240, 240, 120, 0],
  '8×1': [0, 180, 90, 270, 270, 90, 180, 0],
  '4×2': [0, 90, 270, 180],
};

/**
 * The usual layout for a number of mains and rods: pins spread evenly over the bays, throws as is common.
 *
 * @param mains 1 to 20
 * @param rods 1 to 24
 * @param rodsPerPin 2 for V engines with rods side by side; the rods must then be even in number
 * @returns the layout, or what is wrong with the numbers
 * @example usualLayout(5, 4, 1, 3).layout.pins.map((pin) => pin.angle) // [0, 180, 180, 0]
 */
export function usualLayout(
  mains: number,
  rods: number,
  rodsPerPin: 1 | 2,
  thrustMain: number | null,
): { ok: true; layout: CrankLayout } | { ok: false; message: string } {
  // The pin of a shaft with one main is overhung.
  const bays = Math.max(1, mains - 1);
  if (rods % rodsPerPin !== 0)
    return { ok: false, message: `${rods} rods cannot be two to a pin; enter an even number` };
  const count = rods / rodsPerPin;
  if (count < bays || count % bays !== 0) {
    return {
      ok: false,
      message: `${count} ${count === 1 ? 'pin' : 'pins'} cannot be shared evenly by the ${bays} ${bays === 1 ? 'bay' : 'bays'} between ${mains} mains; check mains, rods and rods per pin`,
    };
  }
  const perBay = count / bays;
  const throws = USUAL_THROWS[`${count}×${rodsPerPin}`];
  const pins = Array.from({ length: count }, (_, at) => ({
    bay: Math.floor(at / perBay) + 1,
    angle: throws?.[at] ?? Math.round((360 * at) / count),
    rods: rodsPerPin,
  }));
  return { ok: true, layout: { mains, pins, thrustMain } };
}
