import type { Unit } from '../../measure/unit.js';
import { type ChoiceProblem, restrictedTo } from '../model/choice.js';
import { choiceProblem, KEEP_ALL } from '../model/choiceProblem.js';
import type { FitModel } from '../model/fitModel.js';
import type { FitProblem } from '../model/fitProblem.js';
import type { Remedy } from '../model/fitSolution.js';
import { stationOptions } from '../model/stationOptions.js';
import type { FitQuestions } from './FitQuestions.js';

/** Everything that a remedy is looked for in. */
export interface Trouble {
  /** The problem as it was asked: what a remedy is applied to. */
  readonly problem: FitProblem;
  /** Its model, alike shells merged. */
  readonly model: FitModel;
  /** All stations that are to fit once the remedy is applied, by position. */
  readonly scope: readonly number[];
  /** The stations of the conflict, by position. */
  readonly group: readonly number[];
  readonly unit: Unit;
  readonly questions: FitQuestions;
}

export type Found = Remedy[];

export function remedy(kind: Remedy['kind'], message: string, rest: Partial<Remedy> = {}): Remedy {
  return { kind, message, stations: [], shells: [], ...rest };
}

/** The problem of what is concerned, as it is. */
export function presentProblem({ model, scope }: Trouble): ChoiceProblem {
  return restrictedTo(choiceProblem(model, stationOptions(model), KEEP_ALL), scope);
}

/** Halves as a list to get. */
export function listed(
  model: FitModel,
  missing: ReadonlyMap<number, number>,
): { shells: Remedy['shells']; text: string } {
  const halves = [...missing].map(([shell, count]) => ({ shell: model.shells[shell]!, count }));
  return {
    shells: halves.map(({ shell, count }) => ({ id: shell.id, count })),
    text: halves.map(({ shell, count }) => `${count} × ${shell.name}`).join(', '),
  };
}
