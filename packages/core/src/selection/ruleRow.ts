import type { z } from 'zod';
import type { EngineStart } from '../engineType/enginePart.js';
import type { ProblemRules } from '../fit/model/fitProblem.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { CrankLayout } from '../part/crankLayout.js';

/** The sides that the thinner half of a mixed pair may go to. */
export const THINNER_SIDES = ['either', 'upper', 'lower'] as const;
export type ThinnerSide = (typeof THINNER_SIDES)[number];

/** How a rule is set in a form. */
export type RuleField = { readonly label: string } & (
  | { readonly kind: 'yes-no' }
  | { readonly kind: 'one-of'; readonly options: readonly { readonly value: string; readonly label: string }[] }
  /** A length of zero or more. */
  | { readonly kind: 'length'; readonly isOptional: boolean }
  /** @see RuleRow.shown for what stands there where the rule is left out */
  | { readonly kind: 'number' | 'percent'; readonly most: number; readonly shown?: number }
  /** Mains by number, as `1-3`. */
  | { readonly kind: 'mains' }
);

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
export interface RuleRow<Schema extends z.ZodType = z.ZodType> {
  readonly schema: Schema;
  /** The version of the job document that brought it; left out: the first. */
  readonly since?: number;
  /** What it is in a new job; left out: it is left out until somebody sets it. */
  readonly usual?: (start: EngineStart) => z.output<Schema>;
  /** What it is called in the history of an engine. */
  readonly place: string;
  /** True if its figure is a length, nm. */
  readonly isLength?: boolean;
  /** How it is set among the selection rules; left out: it is set elsewhere. */
  readonly field?: RuleField;
  /** True if an engine has it at all; left out: every one. */
  readonly isOf?: (engine: RuledEngine) => boolean;
  /** What a fitter should know to set it. */
  readonly help?: string;
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
