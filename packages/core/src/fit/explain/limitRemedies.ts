import { lengthText } from '../../measure/lengthText.js';
import { nanometres } from '../../measure/nanometres.js';
import type { ChoiceProblem } from '../model/choice.js';
import { type FitModel, isWished, limitsWith, offsetOfPair } from '../model/fitModel.js';
import type { Remedy } from '../model/fitSolution.js';
import { clearanceWith, endPlayCost } from '../model/optionCost.js';
import { PairWindows } from '../model/PairWindows.js';
import { isOpenShell, pairOf, type ShellPair, shellPairs } from '../model/shellPairs.js';
import { housingsByStation } from '../model/stationOptions.js';
import { type Extra, elasticChoice } from './elasticChoice.js';
import type { FitQuestions } from './FitQuestions.js';
import { type Found, presentProblem, remedy, type Trouble } from './trouble.js';

/** Limits that are named, each the nearest that would do beside those before. */
const MOST_LIMITS = 3;

/** Pairs of one station that are looked at one by one; of more of them each upper half with its nearest lower half. */
const MOST_PAIRS = 40_000;

/** The pairs with stock at a station that keep its end play, in every housing it may take, whatever the oil clearance. */
function anywhere({ model, questions }: Trouble, at: number): readonly Placed[] {
  return questions.once(model, `anywhere ${at}`, () => everyPlaced(model, at)) ?? [];
}

interface Placed {
  readonly pair: ShellPair;
  readonly housing: number;
  readonly clearance: number;
}

function everyPlaced(model: FitModel, at: number): Placed[] {
  const station = model.stations[at]!;
  const wish = model.wishes.get(at);
  const { family, position } = station;
  const open = model.shells.filter((shell) => isOpenShell(shell, family, position));
  const count = (side: 'upper' | 'lower') => open.filter(({ half }) => half !== side).length;
  const isLong = count('lower') * count('upper') > MOST_PAIRS;
  const windows = isLong ? new PairWindows(model.shells, family, model.rules, position) : null;
  const pairs = isLong ? [] : shellPairs(model.shells, family, model.rules, position);
  return housingsByStation(model)[at]!.flatMap((housing) => {
    const bare = model.housings[housing]!.bore - station.journal;
    const { low, high } = limitsWith(station, model.housings[housing]!);
    const rangeOf = (series: string | null) => {
      const gap = bare + offsetOfPair(station, series);
      return { least: gap - high, most: gap - low, aim: gap - station.aim };
    };
    const near = windows?.uppers.flatMap((upper) => {
      const lower = windows.nearest(upper, rangeOf);
      return lower === null ? [] : [pairOf(model.shells, upper, lower, model.rules)];
    });
    return (near ?? pairs)
      .filter((pair) => isWished(wish, { ...pair, housing }))
      .filter((pair) => station.endPlay === null || endPlayCost(station.endPlay, pair, 1) !== null)
      .map((pair) => ({ pair, housing, clearance: clearanceWith(station, model.housings[housing]!, pair) }));
  });
}

/** A journal ground to where halves of the drawer bring it on its aim: one journal, the least metal off. Grinding only takes metal off. */
export function regrinds(trouble: Trouble): Found {
  const { model, group, scope, unit, questions } = trouble;
  const problem = presentProblem(trouble);
  const may = new Set(group);
  const extras = scope.map((at): Extra<number>[] => {
    if (!may.has(at)) return [];
    const station = model.stations[at]!;
    return anywhere(trouble, at).flatMap(({ pair, housing, clearance }): Extra<number>[] => {
      const off = station.aim - clearance;
      const { low, high } = limitsWith(station, model.housings[housing]!);
      if (off <= 0 || station.journal - off <= 0 || station.aim < low || station.aim > high) return [];
      const uses = [pair.upper, pair.lower, model.shells.length + housing] as const;
      return [{ choice: { cost: off, uses, deviation: 0 }, means: off }];
    });
  });
  const answer = onlyOne(questions, problem, extras);
  if (answer === null) return [];
  const station = model.stations[scope[answer.station]!]!;
  const size = nanometres(station.journal - answer.means);
  return [
    remedy(
      'regrind',
      `Grind the journal of ${station.name} to ${lengthText(size, unit)} (${lengthText(answer.means, unit)} under), if the maker's data allow it.`,
      { stations: [station.id], journal: size },
    ),
  ];
}

/** The least change at one station alone: one by one, those of the least possible cost first. */
function onlyOne<Means>(
  questions: FitQuestions,
  problem: ChoiceProblem,
  extras: readonly (readonly Extra<Means>[])[],
): { station: number; means: Means; cost: number } | null {
  const leastOf = (list: readonly Extra<Means>[]) =>
    list.reduce((least, { choice }) => Math.min(least, choice.cost), Number.POSITIVE_INFINITY);
  const order = extras
    .map((list, station) => ({ station, least: leastOf(list) }))
    .filter(({ least }) => least < Number.POSITIVE_INFINITY)
    .sort((a, b) => a.least - b.least || a.station - b.station);
  let best: { station: number; means: Means; cost: number } | null = null;
  for (const { station, least } of order) {
    if (best !== null && least >= best.cost) break;
    const answer = elasticChoice(
      questions,
      problem,
      extras.map((list, at) => (at === station ? list : [])),
    );
    const [taken] = answer?.taken ?? [];
    if (taken && (best === null || answer!.cost < best.cost)) {
      best = { station, means: taken.means, cost: answer!.cost };
    }
  }
  return best;
}

/** Limits of single stations moved just far enough, the nearest first. */
export function limitsMoved(trouble: Trouble): Found {
  const { model, group, scope, unit, questions } = trouble;
  const problem = presentProblem(trouble);
  const may = new Set(group);
  const found: { by: number; remedy: Remedy }[] = [];
  for (const side of ['low', 'high'] as const) {
    for (const [which, at] of scope.entries()) {
      if (!may.has(at)) continue;
      const station = model.stations[at]!;
      const extras = anywhere(trouble, at).flatMap(({ pair, housing, clearance }): Extra<number>[] => {
        const { low, high } = limitsWith(station, model.housings[housing]!);
        const by = side === 'low' ? low - clearance : clearance - high;
        const isElse = side === 'low' ? clearance <= high : clearance >= low;
        const isSensible =
          by <= model.rules.limitShare * (station.high - station.low) && (side === 'high' || station.low - by > 0);
        if (by <= 0 || !isElse || !isSensible) return [];
        const uses = [pair.upper, pair.lower, model.shells.length + housing] as const;
        return [{ choice: { cost: by, uses, deviation: clearance - station.aim }, means: by }];
      });
      if (extras.length === 0) continue;
      const answer = elasticChoice(
        questions,
        problem,
        scope.map((_, other) => (other === which ? extras : [])),
      );
      const by = answer?.taken[0]?.means;
      if (by === undefined) continue;
      const limit = nanometres(station[side] + (side === 'low' ? -by : by));
      found.push({
        by,
        remedy: remedy(
          'limit',
          `Change the ${side} limit at ${station.name} to ${lengthText(limit, unit)} (now ${lengthText(station[side], unit)}), if the maker allows.`,
          { stations: [station.id], limit: { side, value: limit } },
        ),
      });
    }
  }
  return found
    .sort((a, b) => a.by - b.by)
    .slice(0, MOST_LIMITS)
    .map((one) => one.remedy);
}
