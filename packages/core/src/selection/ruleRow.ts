import type { z } from 'zod';
import type { EngineStart } from '../engineType/enginePart.js';
import type { ProblemRules } from '../fit/model/fitProblem.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { CrankLayout } from '../part/crankLayout.js';
import type { SettingField, SettingRow } from '../stage/settingRow.js';

/** The sides that the thinner half of a mixed pair may go to. */
export const THINNER_SIDES = ['either', 'upper', 'lower'] as const;
export type ThinnerSide = (typeof THINNER_SIDES)[number];

/** What of a job says which rules it has. */
export interface RuledEngine {
  readonly layout: Pick<CrankLayout, 'pins'>;
  readonly withRods: boolean;
}

/** What a rule says to the search. */
export type ProblemPart = Partial<Omit<ProblemRules, 'maxSpread'>> & {
  readonly maxSpread?: Partial<ProblemRules['maxSpread']>;
};

/** Rules that stand in the clause of another one. */
export interface RulesBeside {
  readonly maxWallStep: Nanometres;
  readonly thinnerHalf: ThinnerSide;
  readonly spreadMains?: readonly number[] | null | undefined;
}

/** One rule of the selection, and everything that follows from it: schema, default, form, history, sentence and problem are made from this. */
export interface RuleRow<Schema extends z.ZodType = z.ZodType>
  extends Omit<SettingRow<Schema, EngineStart, RuledEngine>, 'field'> {
  /** How it is set among the selection rules; mains are set by number, as `1-3`. Left out: it is set elsewhere. */
  readonly field?: SettingField<RuledEngine> | { readonly kind: 'mains'; readonly label: string };
  /** What it says in the sentence of the rules; null for nothing. */
  readonly words?: (
    value: z.output<Schema>,
    length: (value: Nanometres) => string,
    beside: RulesBeside,
  ) => string | null;
  /** Where it enters the problem that the search is given; left out: the search does not know it. */
  readonly inProblem?: (value: z.output<Schema>) => ProblemPart;
}

export function rule<Schema extends z.ZodType>(row: RuleRow<Schema>): RuleRow<Schema> {
  return row;
}
