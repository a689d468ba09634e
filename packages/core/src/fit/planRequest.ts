import { type FitOptions, fit } from './fit.js';
import type { FitPlan } from './format/fitPlan.js';
import type { FitRequest } from './format/fitRequest.js';
import { planOfSolution } from './format/planOfSolution.js';
import { problemOfRequest } from './format/problemOfRequest.js';

/**
 * Answers a request of the open format with a plan of the open format: what the command line and the server's endpoint do.
 *
 * @param request a valid request (see `readFitRequest`)
 */
export function planRequest(request: FitRequest, options: FitOptions = {}): FitPlan {
  return planOfSolution(fit(problemOfRequest(request), options), request.unit);
}
