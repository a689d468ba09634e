import { leastChoice } from '../joint/leastChoice.js';
import type { ChoiceAnswer, ChoiceProblem } from '../model/choice.js';
import { restrictedTo } from '../model/choice.js';
import { choiceProblem, KEEP_ALL, type Kept } from '../model/choiceProblem.js';
import type { FitModel } from '../model/fitModel.js';
import { type StationOptions, stationOptions } from '../model/stationOptions.js';
import { type ChoiceLimits, hasEnded, within } from '../search/choiceLimits.js';

/** Whether something fits; unknown where the budget ended before the answer. */
export type Fits = 'yes' | 'no' | 'unknown';

/** Questions asked at most where there is no clock. */
const MOST_QUESTIONS = 600;
/** One question takes at most so long where there is a clock, ms: the others want an answer too. */
const LONGEST_QUESTION_MS = 500;
/** Options of a question at most: larger ones are not asked for an explanation. */
const MOST_OPTIONS = 400_000;

/** Asks whether something fits, again and again, within one budget: of time where there is a clock, of questions otherwise. */
export class FitQuestions {
  private asked = 0;
  private readonly limits: ChoiceLimits;
  private readonly known: WeakMap<FitModel, Map<string, unknown>>;

  /** @param before questions whose answers are known already */
  constructor(limits: ChoiceLimits, before?: FitQuestions) {
    const { onProgress: _, ...quiet } = limits;
    this.limits = quiet;
    this.known = before?.known ?? new WeakMap();
  }

  /** An answer about a model that is worked out once; what the budget kept from being known is asked again. */
  once<Answer>(model: FitModel, name: string, work: () => Answer | null): Answer | null {
    const answers = this.known.get(model) ?? new Map<string, unknown>();
    this.known.set(model, answers);
    if (!answers.has(name)) {
      const answer = work();
      if (answer === null && this.isOver) return null;
      answers.set(name, answer);
    }
    return answers.get(name) as Answer | null;
  }

  /** Whether the budget is spent. */
  get isOver(): boolean {
    return this.asked >= MOST_QUESTIONS || hasEnded(this.limits);
  }

  /** The least choice of a problem; stopped at once when the budget is spent. */
  least(problem: ChoiceProblem): ChoiceAnswer {
    if (this.isOver || problem.cost.length > MOST_OPTIONS) return { status: 'stopped', bound: 0 };
    this.asked += 1;
    return leastChoice(problem, within(this.limits, LONGEST_QUESTION_MS));
  }

  /** Whether a problem has any choice, at whatever cost. */
  hasAny(problem: ChoiceProblem): Fits {
    const { status } = this.least({ ...problem, cost: new Float64Array(problem.cost.length) });
    return status === 'infeasible' ? 'no' : status === 'stopped' ? 'unknown' : 'yes';
  }

  /** Whether some stations of a model fit together. */
  fits(
    model: FitModel,
    stations: readonly number[],
    kept: Kept = KEEP_ALL,
    options: StationOptions = stationOptions(model),
  ): Fits {
    return this.hasAny(restrictedTo(choiceProblem(model, options, kept), stations));
  }
}
