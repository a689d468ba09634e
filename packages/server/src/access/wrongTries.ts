import type { Database } from '../database/Database.js';
import { ProblemError } from '../problem/problem.js';

/** How many wrong tries are free at a place, and in how many seconds it forgets one. */
interface Measure {
  readonly free: number;
  readonly decayS: number;
}

const HOUR_S = 3600;
/** A name or a PIN where it is typed: five, and one more an hour. */
const HERE: Measure = { free: 5, decayS: HOUR_S };
/** All that is typed at one device that was let in, whoever it is for. */
const DEVICE: Measure = { free: 20, decayS: 600 };
/** All that comes from one address that nobody let in, and all that such addresses try at one name. */
const ADDRESS: Measure = { free: 40, decayS: 60 };
const NAME: Measure = { free: 50, decayS: 600 };

/** The first wait after the free tries, s; each further try doubles it, up to the longest. */
const FIRST_WAIT_S = 5;
const LONGEST_WAIT_S = 900;
/** What was tried wrongly so long ago counts no longer, s. */
const FORGOTTEN_S = 86_400;

/** One count that a try stands in. */
interface Count extends Measure {
  readonly key: string;
  /** Whose account it keeps shut while it waits; null where it is nobody's in particular. */
  readonly account: string | null;
  /** True if a right try ends the count; of the others it takes back itself only. */
  readonly isOwn: boolean;
}

/** From where something is tried. */
export interface Place {
  /** Id of the device, where it was let in; null elsewhere. */
  readonly device: string | null;
  /** The network address. */
  readonly address: string;
}

/** A try that was counted and may be judged now. */
export interface Try {
  /** It was right: it does not count, and what was wrong here before it neither. */
  readonly right: () => Promise<void>;
}

function placeCounts({ device, address }: Place): Count[] {
  return [
    device === null
      ? { key: `address ${address}`, account: null, isOwn: false, ...ADDRESS }
      : { key: `device ${device}`, account: null, isOwn: false, ...DEVICE },
  ];
}

/**
 * The counts of a name and a password. A device that was let in has one of its own: no stranger shuts somebody out there.
 *
 * @param name as names are compared; one that no account has is counted as one that somebody has
 */
function passwordCounts(name: string, place: Place): Count[] {
  const account = name.slice(0, 200);
  const { device, address } = place;
  const here = device === null ? `address ${address}` : `device ${device}`;
  return [
    { key: `name ${account} ${here}`, account, isOwn: true, ...HERE },
    ...(device === null ? [{ key: `name ${account}`, account, isOwn: false, ...NAME }] : []),
    ...placeCounts(place),
  ];
}

/** The counts of a PIN: of the account wherever it is tried, and of the device. */
function pinCounts(person: string, account: string | null, device: string): Count[] {
  return [{ key: `pin ${person}`, account, isOwn: true, ...HERE }, ...placeCounts({ device, address: '' })];
}

/**
 * Counts a try before it is judged, in one statement: of many at once no more are judged than are free.
 *
 * @throws ProblemError `too-many`, with how long to wait; then it is neither judged nor counted
 */
async function taken({ manager }: Database, counts: readonly Count[]): Promise<Try> {
  const sorted = [...counts].sort((one, other) => (one.key < other.key ? -1 : 1));
  await manager.query(`DELETE FROM "wrong_try" WHERE "last_at" < now() - make_interval(secs => $1)`, [FORGOTTEN_S]);
  const [{ wait }]: [{ wait: number }] = await manager.query(
    `SELECT "take_try"($1::text[], $2::text[], $3::int[], $4::float[], $5, $6) AS "wait"`,
    [
      sorted.map(({ key }) => key),
      sorted.map(({ account }) => account),
      sorted.map(({ free }) => free),
      sorted.map(({ decayS }) => decayS),
      FIRST_WAIT_S,
      LONGEST_WAIT_S,
    ],
  );
  if (wait > 0) {
    const seconds = Math.ceil(wait);
    throw new ProblemError('too-many', `Too many wrong tries. Try again in ${seconds} s.`, [], {}, seconds);
  }
  const keysOf = (isOwn: boolean) => sorted.flatMap((count) => (count.isOwn === isOwn ? [count.key] : []));
  return {
    right: async () => {
      await manager.query(
        `WITH "own" AS (DELETE FROM "wrong_try" WHERE "key" = ANY ($1))
         UPDATE "wrong_try" SET "times" = greatest(0, "times" - 1),
           "locked_until" = CASE WHEN "times" - 1 <= "free" - 0.5 THEN '-infinity' ELSE "locked_until" END
         FROM unnest($2::text[], $3::int[]) AS "shared" ("shared_key", "free") WHERE "key" = "shared_key"`,
        [keysOf(true), keysOf(false), sorted.flatMap(({ isOwn, free }) => (isOwn ? [] : [free]))],
      );
    },
  };
}

/** Counts a try at a password. @throws ProblemError `too-many` */
export function tryPassword(database: Database, name: string, place: Place): Promise<Try> {
  return taken(database, passwordCounts(name, place));
}

/** Counts a try at a PIN. @param account whose it is, as names are compared; null for nobody's @throws ProblemError `too-many` */
export function tryPin(database: Database, person: string, account: string | null, device: string): Promise<Try> {
  return taken(database, pinCounts(person, account, device));
}

/** Counts a try at something that belongs to nobody: the first code, a code that lets a device in. @throws ProblemError `too-many` */
export function tryCode(database: Database, place: Place): Promise<Try> {
  return taken(database, placeCounts(place));
}

/** Forgets what was tried wrongly for an account, wherever that was. */
export async function forgetTries({ manager }: Pick<Database, 'manager'>, account: string): Promise<void> {
  await manager.query(`DELETE FROM "wrong_try" WHERE "account" = $1`, [account]);
}

/** Until when an account is kept shut at some place, by the name as it is compared. */
export async function lockedUntil({ manager }: Database): Promise<Map<string, Date>> {
  const rows: { account: string; until: Date }[] = await manager.query(
    `SELECT "account", max("locked_until") AS "until" FROM "wrong_try"
     WHERE "locked_until" > now() AND "account" IS NOT NULL GROUP BY "account"`,
  );
  return new Map(rows.map(({ account, until }) => [account, until]));
}
