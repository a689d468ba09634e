import { restrictedTo } from '../model/choice.js';
import { choiceProblem, type Kept } from '../model/choiceProblem.js';
import type { FitModel } from '../model/fitModel.js';
import { stationOptions } from '../model/stationOptions.js';
import { type Extra, elasticChoice } from './elasticChoice.js';
import type { FitQuestions } from './FitQuestions.js';

/** Cost units of one half to get: so large that prices only decide between equal counts. */
export const COST_OF_A_HALF = 1e12;

/**
 * Halves to be had on top of the stock at each station: with an upper, a lower or both from outside, whichever of equal kinds is the
 * cheapest.
 *
 * @returns per station what could be served then; means are the shells to get
 */
export function boughtExtras(model: FitModel, stations: readonly number[]): Extra<readonly number[]>[][] {
  const anything = model.shells.map((shell) => ({ ...shell, stock: Number.POSITIVE_INFINITY }));
  const options = stationOptions({ ...model, shells: anything });
  const isShort = (shell: number) => model.shells[shell]!.stock !== Number.POSITIVE_INFINITY;
  return stations.map((station) => {
    const { family, inSpread } = model.stations[station]!;
    const spreadCounts = inSpread && model.rules.maxSpread[family] !== null;
    const cheapest = new Map<string, Extra<readonly number[]>>();
    for (let option = options.start[station]!; option < options.start[station + 1]!; option += 1) {
      const [upper, lower, housing] = [options.use[0][option]!, options.use[1][option]!, options.use[2][option]!];
      const deviation = options.deviation[option]!;
      for (const mask of [1, 2, 3]) {
        const means = [...(mask & 1 ? [upper] : []), ...(mask & 2 ? [lower] : [])];
        if (!means.every(isShort)) continue;
        const uses = [mask & 1 ? -1 : upper, mask & 2 ? -1 : lower, housing] as const;
        const price = means.reduce((sum, shell) => sum + model.shells[shell]!.price, 0);
        const cost = means.length * COST_OF_A_HALF + price;
        const key = `${uses.join()}|${spreadCounts ? deviation : ''}`;
        const known = cheapest.get(key);
        if (known === undefined || cost < known.choice.cost) {
          cheapest.set(key, { choice: { cost, uses, deviation }, means });
        }
      }
    }
    return [...cheapest.values()];
  });
}

/** Counts what extras stand for, kind by kind. */
export function countedHalves(taken: readonly { readonly means: readonly number[] }[]): Map<number, number> {
  const counts = new Map<number, number>();
  for (const { means } of taken) for (const shell of means) counts.set(shell, (counts.get(shell) ?? 0) + 1);
  return new Map([...counts].sort(([a], [b]) => a - b));
}

/**
 * Fewest halves to be had on top of the stock so that stations fit; among equally many the cheapest.
 *
 * @returns per shell how many; null if no purchase helps, or the budget ended
 */
export function fewestHalves(
  questions: FitQuestions,
  model: FitModel,
  stations: readonly number[],
  kept: Kept,
): Map<number, number> | null {
  return questions.once(model, `halves ${JSON.stringify([kept, stations])}`, () => {
    const problem = restrictedTo(choiceProblem(model, stationOptions(model), kept), stations);
    const answer = elasticChoice(questions, problem, boughtExtras(model, stations));
    return answer && countedHalves(answer.taken);
  });
}
