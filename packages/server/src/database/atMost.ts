import { invalidRequest } from '../problem/problem.js';

/**
 * Keeps what is told as one list to what can be told, once something was put into it; what was put in goes with the transaction.
 *
 * @param what what it is told of, as "the drawer holds at most 5000 kinds"
 * @throws ProblemError `invalid-request` where there are more
 */
export function atMost(count: number, most: number, path: string, what: string): void {
  if (count > most) throw invalidRequest([{ path, message: what }]);
}
