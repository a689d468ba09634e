import { z } from 'zod';
import { sizeNmSchema } from '../measure/lengthSchema.js';
import { lengthText } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { MOST_STAGES, torqueStages } from './torqueStages.js';
import { TORQUE_UNITS, torqueText, torqueUnitWord } from './torqueUnit.js';

const figure = z.number().positive('enter a torque above 0').max(10_000, 'no fastener of an engine takes that much');
const unit = z.enum(TORQUE_UNITS);
const final = figure.describe('The last figure of the data sheet, in its unit.');
const stages = z.int().min(1).max(MOST_STAGES).describe('In how many equal stages it is reached.');

const unequal = z
  .array(figure)
  .min(2)
  .max(MOST_STAGES)
  .refine(
    (list) => list.every((value, at) => at === 0 || value > list[at - 1]!),
    'each stage is higher than the one before',
  )
  .optional()
  .describe('The torque of each stage where the book makes them unequal; the last one is the final torque.');

/** Torques of the stages, in the unit of the figure: as the book gives them, else equal ones. */
function stagesOf({
  final,
  stages,
  unequal,
}: {
  final: number;
  stages: number;
  unequal?: number[] | undefined;
}): number[] {
  return unequal ?? torqueStages(final, stages);
}

/** How a fastener is tightened, by the schools that there are: what to do, in figures. */
export const tighteningSchema = z
  .discriminatedUnion('school', [
    z.strictObject({ school: z.literal('stages'), unit, final, stages, unequal }),
    z.strictObject({
      school: z.literal('angle'),
      unit,
      final: final.describe('The torque from which it is turned on.'),
      stages,
      unequal,
      angles: z
        .array(z.number().positive('enter an angle above 0').max(360, 'at most a full turn'))
        .min(1)
        .max(4)
        .describe('Degrees, one pass each.'),
    }),
    z.strictObject({
      school: z.literal('snug'),
      unit,
      snug: figure.describe('The low value first, so that both sides carry load.'),
      final,
      stages,
      unequal,
    }),
    z
      .strictObject({
        school: z.literal('stretch'),
        unit,
        snug: figure.nullable().describe('Torque from which it is stretched; null: not in the book.'),
        low: sizeNmSchema,
        high: sizeNmSchema,
      })
      .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' }),
  ])
  .refine(
    (one) =>
      one.school === 'stretch' ||
      one.unequal === undefined ||
      (one.unequal.length === one.stages && one.unequal.at(-1) === one.final),
    { path: ['unequal'], error: 'one torque for each stage, the last one the final torque' },
  );
export type Tightening = z.output<typeof tighteningSchema>;

/** What each school is called, and why one would follow it. */
export const TIGHTENING_WORDS: Readonly<Record<Tightening['school'], { readonly name: string; readonly why: string }>> =
  {
    stages: { name: 'torque in stages', why: 'all caps come down evenly' },
    angle: { name: 'torque, then angle', why: 'clamp load does not depend on thread friction' },
    snug: { name: 'pre-snug, then stages', why: 'both sides carry load before either is tightened' },
    stretch: { name: 'bolt stretch, measured', why: 'the clamp load is read on the bolt itself' },
  };

/** What one pass over the fasteners brings them to. */
export type PassTarget =
  | { readonly kind: 'snug' | 'torque'; readonly value: number; readonly unit: Tightening['unit'] }
  | { readonly kind: 'angle'; readonly degrees: number }
  | { readonly kind: 'stretch'; readonly low: Nanometres; readonly high: Nanometres };

/**
 * The passes that a tightening is done in, in order.
 *
 * @example passTargets({ school: 'angle', unit: 'Nm', final: 50, stages: 2, angles: [60] }).map(({ kind }) => kind) // ['torque', 'torque', 'angle']
 */
export function passTargets(tightening: Tightening): PassTarget[] {
  const torque = (value: number, kind: 'snug' | 'torque' = 'torque'): PassTarget => ({
    kind,
    value,
    unit: tightening.unit,
  });
  switch (tightening.school) {
    case 'stages':
      return stagesOf(tightening).map((value) => torque(value));
    case 'angle':
      return [
        ...stagesOf(tightening).map((value) => torque(value)),
        ...tightening.angles.map((degrees): PassTarget => ({ kind: 'angle', degrees })),
      ];
    case 'snug':
      return [
        torque(tightening.snug, 'snug'),
        // A stage that is no more than snug already is not done again.
        ...stagesOf(tightening)
          .filter((value, at, all) => value > tightening.snug || at === all.length - 1)
          .map((value) => torque(value)),
      ];
    case 'stretch':
      return [
        ...(tightening.snug === null ? [] : [torque(tightening.snug, 'snug')]),
        { kind: 'stretch', low: tightening.low, high: tightening.high },
      ];
  }
}

/**
 * What a pass brings its fasteners to, in words.
 *
 * @param lengthUnit unit that a stretch is told in
 * @example passText({ kind: 'angle', degrees: 60 }, 'mm') // '60° on'
 */
export function passText(target: PassTarget, lengthUnit: Unit): string {
  switch (target.kind) {
    case 'snug':
      return `snug, ${torqueText(target.value, target.unit)}`;
    case 'torque':
      return torqueText(target.value, target.unit);
    case 'angle':
      return `${target.degrees}° on`;
    case 'stretch':
      return `stretch ${lengthText(target.low, lengthUnit)} to ${lengthText(target.high, lengthUnit)}`;
  }
}

/**
 * A tightening as a book writes it.
 *
 * @param lengthUnit unit that a stretch is told in
 * @example tighteningText({ school: 'angle', unit: 'Nm', final: 50, stages: 2, angles: [60] }, 'mm') // '25 · 50 N·m, then 60°'
 */
export function tighteningText(tightening: Tightening, lengthUnit: Unit): string {
  const targets = passTargets(tightening);
  const of = (kind: PassTarget['kind']) => targets.filter((target) => target.kind === kind);
  const torques = of('torque').flatMap((target) => (target.kind === 'torque' ? [String(target.value)] : []));
  return [
    ...of('snug').map((target) => passText(target, lengthUnit)),
    ...(torques.length === 0 ? [] : [`${torques.join(' · ')} ${torqueUnitWord(tightening.unit)}`]),
    ...of('angle').flatMap((target) => (target.kind === 'angle' ? [`${target.degrees}°`] : [])),
    ...of('stretch').map((target) => passText(target, lengthUnit)),
  ].join(', then ');
}
