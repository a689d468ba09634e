import { z } from 'zod';
import { chanceText } from '../clearance/chanceText.js';
import type { AimRule } from '../clearance/clearanceAim.js';
import type { EngineStart } from '../engineType/enginePart.js';
import { type ProblemRules, USUAL_LIMIT_SHARE } from '../fit/model/fitProblem.js';
import { nanometresSchema, notNegativeNmSchema } from '../measure/lengthSchema.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { eachFamily } from '../part/family.js';
import { mainListText } from '../part/mainList.js';
import type { Material } from '../part/material.js';
import { hasBanks } from '../part/rodBanks.js';
import { settingSchemas, settingUpgrades, usualSettings } from '../stage/settingRow.js';
import {
  type ProblemPart,
  type RuledEngine,
  type RuleRow,
  type RulesBeside,
  rule,
  THINNER_SIDES,
  type ThinnerSide,
} from './ruleRow.js';

/**
 * Where the thinner half of a mixed pair goes by default: the cap side when an aluminium block has iron or steel caps, for
 * the block opens more when hot; no matter otherwise. Common practice; schools differ, so it is a setting.
 *
 * @example usualThinnerHalf('aluminium', 'iron') // 'lower'
 */
export function usualThinnerHalf(block: Material, caps: Material): ThinnerSide {
  return block === 'aluminium' && (caps === 'iron' || caps === 'steel') ? 'lower' : 'either';
}

/** 0.013 mm in a millimetre job, 0.0005 in in an inch job. Common practice. */
const USUAL_WALL_STEP: Readonly<Record<Unit, Nanometres>> = { mm: nanometres(13_000), in: nanometres(12_700) };

const MIDDLE: AimRule = { kind: 'middle' };

export const aimRuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('middle') }),
  z.strictObject({ kind: z.literal('loose-side') }),
  z.strictObject({ kind: z.literal('tight-side') }),
  z.strictObject({ kind: z.literal('per-inch') }),
  z.strictObject({ kind: z.literal('figure'), clearance: nanometresSchema }),
]);

const SIDES: Readonly<Record<ThinnerSide, string>> = {
  either: '',
  upper: ', the thinner shell on the block side',
  lower: ', the thinner shell on the cap side',
};

/**
 * The mains whose spread is told and limited, in words.
 *
 * @example spreadMainsText({ rules: { spreadMains: [1, 2, 3] } }) // 'mains 1-3'
 */
export function spreadMainsText({
  rules: { spreadMains },
}: {
  readonly rules: Pick<RulesBeside, 'spreadMains'>;
}): string {
  return spreadMains == null ? 'mains' : `mains ${mainListText(spreadMains)}`;
}

const withRods = (engine: RuledEngine) => engine.withRods;
const withBanks = (engine: RuledEngine) => engine.withRods && hasBanks(engine.layout);

/** The rules of the selection, in the order of their form. A new one is a row here, and the search's own arithmetic where it asks for some. */
export const RULE_TABLE = {
  aim: rule({ schema: aimRuleSchema, usual: () => MIDDLE, place: 'target for the mains' }),
  rodAim: rule({ schema: aimRuleSchema, usual: () => MIDDLE, place: 'target for the rods' }),
  /** Added to the target of single stations. */
  extras: rule({ schema: z.record(z.string(), nanometresSchema), usual: () => ({}), place: 'added targets' }),
  mixedHalves: rule({
    schema: z.boolean(),
    usual: () => true,
    place: 'mixed pairs',
    field: { kind: 'yes-no', label: 'Two walls in one main' },
    words: (isAllowed, length, { maxWallStep, thinnerHalf }) =>
      isAllowed
        ? `two walls in one main up to ${length(maxWallStep)} apart${SIDES[thinnerHalf]}`
        : 'never two walls in one main',
    inProblem: (mixedHalves) => ({ mixedHalves }),
  }),
  acrossSeries: rule({
    schema: z.boolean(),
    usual: () => false,
    place: 'shells of two series',
    field: { kind: 'yes-no', label: 'Two series in one main' },
    words: (isAllowed) => (isAllowed ? 'mixed series allowed' : 'one series in a main'),
    inProblem: (acrossSeries) => ({ acrossSeries }),
  }),
  thinnerHalf: rule({
    schema: z.enum(THINNER_SIDES),
    usual: ({ materials }) => usualThinnerHalf(materials.block, materials.caps),
    place: 'side of the thinner shell',
    field: {
      kind: 'one-of',
      label: 'Thinner shell goes',
      options: [
        { value: 'either', label: 'either side' },
        { value: 'upper', label: 'block side' },
        { value: 'lower', label: 'cap side' },
      ],
    },
    help: 'Cap side is the default for an aluminium block with iron or steel caps, as the block opens more when hot.',
    inProblem: (thinnerHalf) => ({ thinnerHalf }),
  }),
  maxWallStep: rule({
    schema: notNegativeNmSchema,
    usual: ({ unit }) => USUAL_WALL_STEP[unit],
    place: 'largest wall step in a station',
    field: { kind: 'length', label: 'Wall step at most', isOptional: false },
    inProblem: (maxWallStep) => ({ maxWallStep }),
  }),
  maxSpread: rule({
    schema: notNegativeNmSchema.nullable(),
    usual: () => null,
    place: 'largest spread of the mains',
    field: { kind: 'length', label: 'Mains: largest spread', isOptional: true },
    help: 'Spread is that of the deviations along the shaft; blank: no limit.',
    words: (spread, length, rules) =>
      spread === null ? null : `spread of the ${spreadMainsText({ rules })} at most ${length(spread)}`,
    inProblem: (main) => ({ maxSpread: { main } }),
  }),
  /** Mains among which the largest spread holds, by number; left out or null: all. */
  spreadMains: rule({
    schema: z.array(z.int().min(1).max(99)).min(2).max(99).nullable().optional(),
    place: 'mains covered by the largest spread',
    field: { kind: 'mains', label: 'Spread among mains, as 1-3; empty for all' },
  }),
  maxRodSpread: rule({
    schema: notNegativeNmSchema.nullable(),
    usual: () => null,
    place: 'largest spread of the rods',
    field: { kind: 'length', label: 'Rods: largest spread', isOptional: true },
    isOf: withRods,
    words: (spread, length) => (spread === null ? null : `spread of the rods at most ${length(spread)}`),
    inProblem: (rod) => ({ maxSpread: { rod } }),
  }),
  /** True if rods may change banks; left out: they stay on their own. */
  rodsAcrossBanks: rule({
    schema: z.boolean().optional(),
    place: 'whether rods may change banks',
    field: { kind: 'yes-no', label: 'Rods may change banks' },
    isOf: withBanks,
    help: 'Rods stay on their bank unless you allow otherwise: with two rods on a pin their oil holes, offsets and chamfers have a side.',
    words: (isAllowed) => (isAllowed === true ? 'rods may change banks' : 'rods stay on their bank'),
  }),
  tightWeight: rule({
    schema: z.number().min(0).max(1000),
    usual: () => 2,
    place: 'weight of a shortfall',
    field: { kind: 'number', label: 'A shortfall weighs, times', most: 1000 },
    help: 'A shortfall weighs more than the same excess: too tight seizes a bearing, too loose costs noise and flow.',
    words: (weight) => `a shortfall weighs ${weight} times`,
    inProblem: (tightWeight) => ({ tightWeight }),
  }),
  mixedPenalty: rule({
    schema: z.number().min(0).max(1e9),
    usual: () => 4,
    place: 'cost of a mixed station',
    field: { kind: 'number', label: 'A mixed main costs, µm²', most: 1_000_000 },
    help: 'The cost of a mixed pair is a square: 4 µm² is as bad as 2 µm off target.',
    inProblem: (mixedPenalty) => ({ mixedPenalty }),
  }),
  closeFraction: rule({
    schema: z.number().min(0).max(0.5),
    usual: () => 0.1,
    place: 'what counts as close to a limit',
    field: { kind: 'percent', label: 'Close to a limit, % of range', most: 50 },
  }),
  /** The furthest a remedy may move a limit, as a share of the range between the limits; left out: a half. */
  limitShare: rule({
    schema: z.number().min(0).max(10).optional(),
    place: 'how far a remedy may move a limit',
    field: {
      kind: 'percent',
      label: 'A remedy moves a limit at most, % of range',
      most: 1000,
      shown: USUAL_LIMIT_SHARE,
    },
    inProblem: (limitShare) => (limitShare === undefined ? {} : { limitShare }),
  }),
  /** Least chance that a station is inside its limits; null where the choice does not ask for it. */
  leastChance: rule({
    schema: z.number().min(0.5).max(0.999).nullable(),
    since: 3,
    usual: () => null,
    place: 'required chance of being in limits',
    words: (chance) => (chance === null ? null : `chance of being in limits at least ${chanceText(chance)}`),
  }),
} as const;

export type RuleKey = keyof typeof RULE_TABLE;

/** The rules, in the order of their form. */
export const RULES = Object.entries(RULE_TABLE) as [RuleKey, RuleRow][];

export const jobRulesSchema = z.strictObject(settingSchemas(RULE_TABLE));
export type JobRules = z.output<typeof jobRulesSchema>;

/** The rules of a new job, each of which the fitter can change. */
export function usualRules(start: EngineStart): JobRules {
  return usualSettings(RULE_TABLE, start);
}

export const RULE_UPGRADES = settingUpgrades(RULE_TABLE, 'rules');

/** The rules as the search is given them. */
export function rulesOfProblem(rules: JobRules): ProblemRules {
  const parts = RULES.map(([key, { inProblem }]): ProblemPart => inProblem?.(rules[key]) ?? {});
  return {
    pricePenalty: 0,
    limitShare: USUAL_LIMIT_SHARE,
    ...Object.assign({}, ...parts),
    maxSpread: Object.assign(
      eachFamily((): Nanometres | null => null),
      ...parts.map(({ maxSpread }) => maxSpread),
    ),
  };
}
