import { type Choice, type ChoiceProblem, choicesOf } from '../model/choice.js';
import type { FitQuestions } from './FitQuestions.js';

/** A way to serve a station that is not open to it, and what it stands for. */
export interface Extra<Means> {
  /** Its cost: of what has to change, in units that only decide between such extras. */
  readonly choice: Choice;
  readonly means: Means;
}

/**
 * The least change after which everything fits: what is open to a station costs nothing, what would have to change first costs what
 * is said of it.
 *
 * @param extras per station of the problem
 * @returns what the extras taken stand for, by station, and the sum of their costs; null when nothing helps, or the budget ended
 */
export function elasticChoice<Means>(
  questions: FitQuestions,
  problem: ChoiceProblem,
  extras: readonly (readonly Extra<Means>[])[],
): { readonly taken: readonly { readonly station: number; readonly means: Means }[]; readonly cost: number } | null {
  const counts = extras.map((list, station) => ({
    open: problem.start[station + 1]! - problem.start[station]!,
    extra: list.length,
  }));
  const added = choicesOf(extras.map((list) => list.map(({ choice }) => choice)));
  const total = counts.reduce((sum, { open, extra }) => sum + open + extra, 0);
  const start = new Int32Array(counts.length + 1);
  const cost = new Float64Array(total);
  const deviation = new Float64Array(total);
  const use = [new Int32Array(total), new Int32Array(total), new Int32Array(total)] as const;
  counts.forEach(({ open, extra }, station) => {
    const at = start[station]!;
    start[station + 1] = at + open + extra;
    const copy = (
      into: Float64Array | Int32Array,
      from: Float64Array | Int32Array,
      first: number,
      many: number,
      to: number,
    ) => into.set(from.subarray(first, first + many), to);
    copy(deviation, problem.deviation, problem.start[station]!, open, at);
    copy(deviation, added.deviation, added.start[station]!, extra, at + open);
    copy(cost, added.cost, added.start[station]!, extra, at + open);
    use.forEach((list, which) => {
      copy(list, problem.use[which as 0 | 1 | 2], problem.start[station]!, open, at);
      copy(list, added.use[which as 0 | 1 | 2], added.start[station]!, extra, at + open);
    });
  });
  const answer = questions.least({
    ...problem,
    start,
    cost,
    deviation,
    use,
  });
  if (answer.status !== 'optimal') return null;
  const taken = Array.from(answer.chosen).flatMap((option, station) => {
    const which = option - start[station]! - counts[station]!.open;
    return which < 0 ? [] : [{ station, means: extras[station]![which]!.means }];
  });
  return { taken, cost: answer.cost };
}
