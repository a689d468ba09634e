import { typeLimitsSchema } from '../engineType/limits.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import type { CrankLayout } from '../part/crankLayout.js';
import { eachFeature, FEATURE_TABLE } from '../part/feature.js';
import type { Material } from '../part/material.js';
import type { JobDocument, JobRules } from './jobDocument.js';
import { blankParts } from './jobParts.js';

/**
 * Where the thinner half of a mixed pair goes by default: the cap side when an aluminium block has iron or steel caps, for
 * the block opens more when hot; no matter otherwise. Common practice; schools differ, so it is a setting.
 *
 * @example usualThinnerHalf('aluminium', 'iron') // 'lower'
 */
export function usualThinnerHalf(block: Material, caps: Material): JobRules['thinnerHalf'] {
  return block === 'aluminium' && (caps === 'iron' || caps === 'steel') ? 'lower' : 'either';
}

/** 0.013 mm in a millimetre job, 0.0005 in in an inch job. Common practice. */
const USUAL_WALL_STEP: Readonly<Record<Unit, Nanometres>> = { mm: nanometres(13_000), in: nanometres(12_700) };

/** A job with nothing measured: no limits, no shells, and the usual rules, each of which the fitter can change. */
export function newJob(
  name: string,
  unit: Unit,
  layout: CrankLayout,
  materials: JobDocument['materials'],
  withRods = false,
): JobDocument {
  return {
    format: 'fettle.job/5',
    name,
    unit,
    layout,
    materials,
    origin: null,
    sheet: null,
    limits: typeLimitsSchema.parse({}),
    mainLimits: {},
    places: {},
    printed: null,
    measuring: {
      order: 'along',
      slots: eachFeature((feature) => [...FEATURE_TABLE[feature].usualSlots]),
      uncertainty: nanometres(2000),
      setting: eachFeature(() => null),
      celsius: eachFeature(() => null),
      gaugeCelsius: null,
      mode: eachFeature(() => null),
    },
    rules: {
      aim: { kind: 'middle' },
      rodAim: { kind: 'middle' },
      extras: {},
      mixedHalves: true,
      acrossSeries: false,
      maxWallStep: USUAL_WALL_STEP[unit],
      thinnerHalf: usualThinnerHalf(materials.block, materials.caps),
      maxSpread: null,
      maxRodSpread: null,
      tightWeight: 2,
      mixedPenalty: 4,
      closeFraction: 0.1,
      leastChance: null,
    },
    marks: {},
    depth: 'measure',
    withRods,
    use: null,
    rods: {},
    wishes: {},
    shells: {},
    choice: null,
    pieces: {},
    ...blankParts({ unit, isByMarks: false }),
  };
}
