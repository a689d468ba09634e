import { KEEP_ALL } from '../model/choiceProblem.js';
import { fitModelOf } from '../model/fitModel.js';
import type { Remedy } from '../model/fitSolution.js';
import { mergedShells } from '../model/mergedShells.js';
import { applyRemedy } from './applyRemedy.js';
import { fewestHalves } from './fewestHalves.js';
import { limitsMoved, regrinds } from './limitRemedies.js';
import { releases, rodsMoved } from './moveRemedies.js';
import { newWall } from './newWallRemedy.js';
import { rulesChanged } from './ruleRemedies.js';
import { type Found, listed, remedy, type Trouble } from './trouble.js';

/** Effort: stations that are looked at one by one. */
const MOST_STATIONS = 60;

/** The gate that every remedy passes: applied to the whole problem, which is solved again for what is to fit. */
function helps({ problem, scope, questions }: Trouble, offered: Remedy): boolean {
  const { model } = mergedShells(fitModelOf(applyRemedy(problem, offered)));
  return questions.fits(model, scope) === 'yes';
}

function purchase({ model, scope, questions }: Trouble): { found: Found; count: number } {
  const missing = fewestHalves(questions, model, scope, KEEP_ALL);
  if (missing === null || missing.size === 0) return { found: [], count: Number.POSITIVE_INFINITY };
  const { shells, text } = listed(model, missing);
  const isPriced = [...missing.keys()].every((shell) => model.shells[shell]!.price > 0);
  const cheapest = isPriced ? ', the cheapest purchase' : '';
  const count = shells.reduce((sum, next) => sum + next.count, 0);
  return { found: [remedy('buy', `Get ${text}${cheapest}.`, { shells })], count };
}

/**
 * Single changes that make everything concerned fit. Each asks for the least of its kind, and each was applied to the whole problem,
 * which was solved again, before it is offered. Cheapest first: what costs nothing (a held choice, a rod moved), halves to get,
 * another wall, a rule, grinding, a limit.
 */
export function remediesFor(trouble: Trouble): Remedy[] {
  const { found, count } = purchase(trouble);
  const isLarge = trouble.group.length > MOST_STATIONS || trouble.scope.length > 4 * MOST_STATIONS;
  const kinds = isLarge
    ? [() => found]
    : [
        () => releases(trouble),
        () => rodsMoved(trouble),
        () => found,
        () => newWall(trouble, count),
        () => rulesChanged(trouble),
        () => regrinds(trouble),
        () => limitsMoved(trouble),
      ];
  return kinds.flatMap((offered) => (trouble.questions.canAsk() ? offered().filter((one) => helps(trouble, one)) : []));
}
