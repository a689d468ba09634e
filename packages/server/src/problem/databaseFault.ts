/** What is amiss with the database: it is gone or going, has too much to do, or has no room. */
export type DatabaseFault = 'away' | 'busy' | 'full';

/** No room on the disk. */
const FULL: ReadonlySet<string> = new Set(['53100', 'ENOSPC']);
/** A statement or a lock took too long, two waited for each other, or the connection was idle for too long. */
const BUSY: ReadonlySet<string> = new Set(['57014', '55P03', '40P01', '40001', '25P03', '53300', '53200']);
/** Connections refused, lost or cut off, by the network (Node's names) or by the database (classes 08 and 57P of SQLSTATE). */
const AWAY = /^(?:E(?:CONN\w+|PIPE|TIMEDOUT|NOTFOUND|HOSTUNREACH|NETUNREACH|AI_AGAIN)|08\w{3}|57P0[1-5])$/u;
const NO_CONNECTION = 'timeout exceeded when trying to connect';
/** What pg and TypeORM say of a connection that is no more, without a code: which of them depends on what was under way. */
const AWAY_WORDS = [
  /connection terminated/iu,
  /terminating connection/iu,
  /connection error and is not queryable/iu,
  /client was closed/iu,
  /cannot use a pool after calling end/iu,
  /server closed the connection/iu,
  /the database system is/iu,
  /driver not connected/iu,
  /query runner(?: already)? (?:was |been )?released/iu,
  /queryrunner.*released/iu,
  /connection (?:ended|is closed|lost)/iu,
  /query read timeout/iu,
];

/** An error with everything that it was made of. */
function* within(error: unknown, depth = 0): Generator<{ code?: unknown; message?: unknown; name?: unknown }> {
  if (typeof error !== 'object' || error === null || depth > 5) return;
  yield error;
  const { cause, driverError, errors } = error as { cause?: unknown; driverError?: unknown; errors?: unknown };
  for (const inner of [cause, driverError, ...(Array.isArray(errors) ? errors : [])]) yield* within(inner, depth + 1);
}

/** What is amiss with the database, by whatever was thrown; null where that says nothing of it. */
export function databaseFault(error: unknown): DatabaseFault | null {
  let found: DatabaseFault | null = null;
  for (const { code, message } of within(error)) {
    const said = typeof message === 'string' ? message : '';
    if (typeof code === 'string' && FULL.has(code)) return 'full';
    if ((typeof code === 'string' && BUSY.has(code)) || said === NO_CONNECTION) found ??= 'busy';
    if ((typeof code === 'string' && AWAY.test(code)) || AWAY_WORDS.some((words) => words.test(said))) found ??= 'away';
  }
  return found;
}
