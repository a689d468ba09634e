import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { calibrationDue } from '../measure/instrument.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { daySchema, momentSchema } from '../measure/moment.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';

const words = z.string().trim().max(120, 'at most 120 characters');

/** What a calibration found at one size, or at one travel of a dial. */
const pointSchema = z.strictObject({
  at: nanometresSchema.describe('Size of the standard; of a dial the travel from its setting.'),
  error: nanometresSchema.describe('What the instrument showed, less the standard.'),
  expanded: nanometresSchema
    .refine((value) => value >= 0, 'cannot be below zero')
    .describe('Expanded uncertainty of the error.'),
  factor: z.number().min(1).max(4).describe('Coverage factor k of the expanded uncertainty; 2 is usual.'),
});
export type CalibrationPoint = z.output<typeof pointSchema>;

/** The first point that is not above the one before it. */
function outOfOrder(points: readonly CalibrationPoint[]): number {
  return points.findIndex(({ at }, index) => index > 0 && at <= points[index - 1]!.at);
}

const calibrationFields = {
  on: daySchema.describe('Day of the calibration.'),
  due: daySchema
    .nullable()
    .describe('Day of the next one, as the certificate says; null: by the interval of the instrument.'),
  laboratory: words.describe('Who calibrated it; may be empty.'),
  certificate: words.describe('Number of the certificate; may be empty.'),
  points: z.array(pointSchema).max(50, 'at most 50 points'),
};

/** A calibration as it is entered. Corrections are told by its points, from the smallest size up. */
export const calibrationDraftSchema = z.strictObject(calibrationFields).superRefine(({ on, due, points }, context) => {
  const wrong = outOfOrder(points);
  if (wrong >= 0) {
    const message = `point ${wrong + 1} is not above point ${wrong}: enter the points from the smallest up, each once`;
    context.addIssue({ code: 'custom', path: ['points', wrong, 'at'], message });
  }
  if (due !== null && due <= on) {
    context.addIssue({
      code: 'custom',
      path: ['due'],
      message: 'the next calibration is due before this one was done',
    });
  }
});
export type CalibrationDraft = z.output<typeof calibrationDraftSchema>;

/** A calibration as it is kept; one that turns out to be wrong stays, and says so. */
export const calibrationSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  ...calibrationFields,
  by: personSchema,
  at: momentSchema,
  wrong: z
    .strictObject({ by: personSchema, at: momentSchema, reason: z.string().trim().min(1, 'enter the reason').max(200) })
    .nullable()
    .describe('Who said that what the instrument read after it is not to be trusted, and why; null: nobody.'),
  file: z
    .strictObject({ name: z.string(), type: z.string(), bytes: z.int() })
    .nullable()
    .describe('Its certificate; null: none attached.'),
});
export type Calibration = z.output<typeof calibrationSchema>;

/** The last calibration; null where there is none. */
export function lastCalibration(calibrations: readonly Calibration[]): Calibration | null {
  return calibrationOn(calibrations, '9999-12-31');
}

/**
 * The calibration that was valid on a day: the last one done by then.
 *
 * @param day as 2026-11-25, or a moment
 */
export function calibrationOn(calibrations: readonly Calibration[], day: string): Calibration | null {
  const then = day.slice(0, 10);
  return calibrations.reduce<Calibration | null>(
    (found, one) => (one.on <= then && (found === null || one.on >= found.on) ? one : found),
    null,
  );
}

/** The day on which a calibration runs out; null where neither it nor its instrument says. */
export function dueAfter(
  { due, on }: Pick<Calibration, 'due' | 'on'>,
  calibrateAfterMonths: number | null,
): string | null {
  return due ?? calibrationDue({ calibratedOn: on, calibrateAfterMonths });
}

/** The error of an instrument somewhere on its scale, by its calibration. */
export type KnownError =
  /** What it shows too much, nm, and the standard uncertainty of that, nm. */
  | { readonly kind: 'known'; readonly error: Nanometres; readonly u: number }
  /** Beyond the points: nothing is known there, and nothing is corrected. */
  | { readonly kind: 'beyond'; readonly low: Nanometres; readonly high: Nanometres }
  /** The calibration names no points. */
  | { readonly kind: 'none' };

/**
 * The error of an instrument at a size, or a travel, by straight lines between the points of its calibration; never beyond them.
 *
 * @param at what the instrument showed, nm
 * @example errorAt([{ at: 0, error: 0, expanded: 2000, factor: 2 }, { at: 100, error: 50, expanded: 2000, factor: 2 }], 50) // { kind: 'known', error: 25, u: 1000 }
 */
export function errorAt(points: readonly CalibrationPoint[], at: Nanometres): KnownError {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return { kind: 'none' };
  if (at < first.at || at > last.at) return { kind: 'beyond', low: first.at, high: last.at };
  const above = points.findIndex((point) => point.at >= at);
  const [low, high] = [points[Math.max(0, above - 1)]!, points[above]!];
  const share = high.at === low.at ? 0 : (at - low.at) / (high.at - low.at);
  const between = (of: (point: CalibrationPoint) => number) => of(low) + share * (of(high) - of(low));
  return {
    kind: 'known',
    error: nanometres(Math.round(between(({ error }) => error))),
    u: between(({ expanded, factor }) => expanded / factor),
  };
}
