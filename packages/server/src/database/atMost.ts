import type { EntityManager, EntitySchema, FindOptionsWhere, ObjectLiteral } from 'typeorm';
import { invalidRequest } from '../problem/problem.js';
import { oneAtATime } from './oneAtATime.js';

/** How long a list may be, and what is said where it is longer. */
interface Most<Row extends ObjectLiteral> {
  readonly most: number;
  /** What of it counts; left out for all. */
  readonly where?: FindOptionsWhere<Row>;
  /** JSON Pointer to what was one too many. */
  readonly path: string;
  /** What it is told of, as "the drawer holds at most 5000 kinds". */
  readonly what: string;
}

/**
 * Keeps what is told as one list to what can be told, once something was put into it; what was put in goes with the transaction. Of two that
 * put something in at the same moment, the second waits for the first and counts what that has left: call it last.
 *
 * @throws ProblemError `invalid-request` where there are more
 */
export async function atMost<Row extends ObjectLiteral>(
  manager: EntityManager,
  list: EntitySchema<Row>,
  { most, where, path, what }: Most<Row>,
): Promise<void> {
  await oneAtATime(manager, [`how long: ${list.options.name}`]);
  const count = await manager.count(list, where === undefined ? {} : { where });
  if (count > most) throw invalidRequest([{ path, message: what }]);
}
