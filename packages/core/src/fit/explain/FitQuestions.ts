import { leastChoice } from '../joint/leastChoice.js';
import type { ChoiceAnswer, ChoiceProblem } from '../model/choice.js';
import { restrictedTo } from '../model/choice.js';
import { choiceProblem, KEEP_ALL, type Kept } from '../model/choiceProblem.js';
import type { FitModel } from '../model/fitModel.js';
import { type StationOptions, stationOptions } from '../model/stationOptions.js';
import { type ChoiceLimits, hasEnded, type WorkMeter, within } from '../search/choiceLimits.js';

/** True if something fits; unknown where the budget ended before the answer. */
export type Fits = 'yes' | 'no' | 'unknown';

/** Questions asked at most. */
const MOST_QUESTIONS = 600;
/** Steps of work (see `WorkMeter`) of all questions and of one: the others want an answer too. */
const MOST_STEPS = 700_000_000;
const MOST_STEPS_OF_ONE = 150_000_000;
/** Steps of work that asking takes, whatever the question, and per option of it. */
const STEPS_OF_A_QUESTION = 20_000;
const STEPS_OF_AN_OPTION = 150;
/** One question takes at most so long where there is a clock, ms: the others want an answer too. */
const LONGEST_QUESTION_MS = 500;
/** Options of a question at most: larger ones are not asked for an explanation. */
const MOST_OPTIONS = 400_000;

/** A model whose halves never run out. */
export function withoutStock(model: FitModel): FitModel {
  return { ...model, shells: model.shells.map((shell) => ({ ...shell, stock: Number.POSITIVE_INFINITY })) };
}

/**
 * Asks whether something fits, again and again, within one budget of work, and of time where there is a clock. Without a clock the same
 * questions get the same answers however busy the machine is.
 */
export class FitQuestions {
  private asked = 0;
  private cut = false;
  private readonly work: WorkMeter = { left: MOST_STEPS };
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

  /** True if the budget is spent. */
  get isOver(): boolean {
    return this.asked >= MOST_QUESTIONS || this.work.left <= 0 || hasEnded(this.limits);
  }

  /** True once something was not found out because the budget was too small for it. */
  get isCut(): boolean {
    return this.cut;
  }

  /** True if more can be asked; where not, something is left out. */
  canAsk(): boolean {
    if (this.isOver) this.cut = true;
    return !this.isOver;
  }

  /** The least choice of a problem; stopped at once when the budget is spent. */
  least(problem: ChoiceProblem): ChoiceAnswer {
    if (!this.canAsk() || problem.cost.length > MOST_OPTIONS) {
      this.cut = true;
      return { status: 'stopped', bound: 0 };
    }
    this.asked += 1;
    const granted = Math.min(this.work.left, MOST_STEPS_OF_ONE);
    const work: WorkMeter = { left: granted };
    const answer = leastChoice(problem, { ...within(this.limits, LONGEST_QUESTION_MS), work });
    this.work.left -= granted - work.left + STEPS_OF_A_QUESTION + STEPS_OF_AN_OPTION * problem.cost.length;
    if (answer.status === 'stopped') this.cut = true;
    return answer;
  }

  /** True if a problem has any choice, at whatever cost. */
  hasAny(problem: ChoiceProblem): Fits {
    const { status } = this.least({ ...problem, cost: new Float64Array(problem.cost.length) });
    return status === 'infeasible' ? 'no' : status === 'stopped' ? 'unknown' : 'yes';
  }

  /** True if some stations of a model fit together. */
  fits(model: FitModel, stations: readonly number[], kept: Kept = KEEP_ALL, known?: StationOptions): Fits {
    if (!this.canAsk()) return 'unknown';
    const options = known ?? stationOptions(model, () => this.isOver);
    const answer = this.hasAny(restrictedTo(choiceProblem(model, options, kept), stations));
    const isProof = options.holds === 'all' || (options.holds === 'without spread' && !kept.spread);
    return answer === 'no' && !isProof ? 'unknown' : answer;
  }
}
