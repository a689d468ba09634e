import { describe, expect, it } from 'vitest';
import { fit } from '../fit.js';
import { planRequest } from '../planRequest.js';
import { recheckPlan } from '../recheckPlan.js';
import { requestInEitherUnit } from '../testing/randomRequest.js';
import { requestOfProblem } from '../testing/requestOfProblem.js';
import { fitRequestSchema } from './fitRequest.js';
import { planOfSolution } from './planOfSolution.js';
import { problemOfRequest } from './problemOfRequest.js';

describe('the open format', () => {
  it('is read into nanometres and written back without losing any, whatever fields it has', () => {
    let [planned, unplanned] = [0, 0];
    for (let seed = 1; seed <= 40; seed += 1) {
      const request = fitRequestSchema.parse(requestInEitherUnit(seed));
      const problem = problemOfRequest(request);
      expect(problemOfRequest(requestOfProblem(problem)), `seed ${seed}`).toEqual(problem);
      const plan = planRequest(request);
      // The re-check works on the written decimals.
      expect(recheckPlan(request, plan), `seed ${seed}`).toEqual([]);
      if (plan.cost === null) unplanned += 1;
      else planned += 1;
    }
    expect(Math.min(planned, unplanned)).toBeGreaterThan(3);
  });

  it('names stations, housings and shells by their ids, whatever sentences call them', () => {
    const request = fitRequestSchema.parse(requestInEitherUnit(3));
    const problem = problemOfRequest(request);
    const called = {
      ...problem,
      stations: problem.stations.map((station) => ({ ...station, name: `bearing ${station.id}` })),
      housings: problem.housings.map((housing) => ({ ...housing, name: `housing ${housing.id}` })),
      shells: problem.shells.map((shell) => ({ ...shell, name: `half ${shell.id}` })),
    };
    const [plain, other] = [problem, called].map((one) => planOfSolution(fit(one), request.unit));
    const ids = (plan: typeof plain) => [
      plan!.stations,
      plan!.conflicts.map(({ stations, shells }) => [stations, shells]),
    ];
    expect(ids(other)).toEqual(ids(plain));
    for (const { message, stations } of other!.conflicts)
      for (const id of stations) expect(message).toContain(`bearing ${id}`);
  });
});
