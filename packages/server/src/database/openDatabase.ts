import pg from 'pg';
import { DataSource, type DataSourceOptions, type EntitySchema, type QueryRunner } from 'typeorm';
import { JobsAndReadings1795000000001 } from './migrations/0001-jobs-and-readings.js';
import { WorkshopDrawer1795000000002 } from './migrations/0002-workshop-drawer.js';
import { EngineTypesAndStock1795000000003 } from './migrations/0003-engine-types-and-stock.js';
import { Lists1795000000004 } from './migrations/0004-lists.js';
import { Pieces1795000000005 } from './migrations/0005-pieces.js';
import { Taken1795000000006 } from './migrations/0006-taken.js';
import { SheetsAndPhotos1795000000007 } from './migrations/0007-sheets-and-photos.js';
import { PeopleAndDevices1795000000008 } from './migrations/0008-people-and-devices.js';
import { Locks1795000000009 } from './migrations/0009-locks.js';
import { Quick1795000000010 } from './migrations/0010-quick.js';
import { Unsent1795000000011 } from './migrations/0011-unsent.js';
import { Instruments1795000000012 } from './migrations/0012-instruments.js';
import { Builds1795000000013 } from './migrations/0013-builds.js';
import { Evidence1795000000014 } from './migrations/0014-evidence.js';
import { Due1795000000015 } from './migrations/0015-due.js';

/**
 * How long what is asked of the database may take, ms: a statement, waiting for somebody else's lock, a transaction in which nothing is
 * asked, and waiting for a connection.
 */
const BOUNDS = {
  statement_timeout: 20_000,
  lock_timeout: 10_000,
  idle_in_transaction_session_timeout: 30_000,
  connectionTimeoutMillis: 5000,
} as const;

/** Names the lock of PostgreSQL that one server holds while it brings the tables up to date. A number of our own. */
const UPDATE_LOCK = 4_780_001;
/** Time to wait for another server that does so, ms. */
const UPDATE_WAIT_MS = 300_000;

/** A database that a later build of Fettle has written: this one does not know what stands there. */
export class NewerDatabase extends Error {
  override readonly name = 'NewerDatabase';

  constructor(migrations: readonly string[]) {
    super(
      `was written by a newer version of Fettle (${migrations.join(', ')}). Start that version, or a later one. Nothing was read or changed`,
    );
  }
}

/** @throws NewerDatabase where migrations were run that this build does not have */
async function refuseNewer(database: DataSource, runner: QueryRunner): Promise<void> {
  const [{ is: isThere }] = await runner.query(`SELECT to_regclass('migrations') IS NOT NULL AS "is"`);
  if (!isThere) return;
  const known = new Set(database.migrations.map(({ name }) => name));
  const rows: { name: string }[] = await runner.query(`SELECT "name" FROM "migrations" ORDER BY "id"`);
  const later = rows.flatMap(({ name }) => (known.has(name) ? [] : [name]));
  if (later.length > 0) throw new NewerDatabase(later);
}

/**
 * Brings the tables up to date, one server at a time: a second one waits, and then finds nothing to do.
 *
 * @throws NewerDatabase before anything is read or changed
 */
async function bringUpToDate(database: DataSource): Promise<void> {
  const runner = database.createQueryRunner();
  await runner.connect();
  try {
    await runner.query(`SET lock_timeout = ${UPDATE_WAIT_MS}`);
    await runner.query('SELECT pg_advisory_lock($1)', [UPDATE_LOCK]);
    try {
      await refuseNewer(database, runner);
      await database.runMigrations();
    } finally {
      await runner.query('SELECT pg_advisory_unlock($1)', [UPDATE_LOCK]);
    }
  } finally {
    await runner.release();
  }
}

/** Every migration, in order. */
const MIGRATIONS = [
  JobsAndReadings1795000000001,
  WorkshopDrawer1795000000002,
  EngineTypesAndStock1795000000003,
  Lists1795000000004,
  Pieces1795000000005,
  Taken1795000000006,
  SheetsAndPhotos1795000000007,
  PeopleAndDevices1795000000008,
  Locks1795000000009,
  Quick1795000000010,
  Unsent1795000000011,
  Instruments1795000000012,
  Builds1795000000013,
  Evidence1795000000014,
  Due1795000000015,
];

/**
 * Makes the tables of an earlier version, or of this one, in an empty database.
 *
 * @param names the migrations of that version, in order
 * @throws NewerDatabase for one that this build does not have, Error where they are not those of any version
 */
export async function migrateTo(url: string, names: readonly string[]): Promise<void> {
  const known: readonly string[] = MIGRATIONS.map((Migration) => new Migration().name);
  const later = names.filter((name) => !known.includes(name));
  if (later.length > 0) throw new NewerDatabase(later);
  if (names.some((name, at) => known[at] !== name))
    throw new Error('its migrations are not those of any version of Fettle');
  const migrations = MIGRATIONS.slice(0, names.length);
  const database = new DataSource({ type: 'postgres', url, migrations, migrationsTransactionMode: 'each' });
  await database.initialize();
  try {
    await database.runMigrations();
  } finally {
    await database.destroy();
  }
}

/**
 * A connection that hears what breaks it between two questions, where neither the pool nor who holds it listens: unheard it would end the whole
 * server. The next question on it fails, and says so.
 */
class HearingClient extends pg.Client {
  constructor(config?: pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
  }
}

/**
 * Opens the database and brings its tables up to date.
 *
 * @param url a postgresql:// address
 * @param entities the rows that are read and written through it
 * @throws NewerDatabase where a later build has written it
 */
export async function openDatabase(url: string, entities: readonly EntitySchema[]): Promise<DataSource> {
  const options = {
    type: 'postgres',
    url,
    entities: [...entities],
    migrations: MIGRATIONS,
    migrationsTransactionMode: 'each',
    synchronize: false,
    logging: false,
  } as const satisfies DataSourceOptions;
  // Bringing tables up to date may take as long as it takes; nothing else may.
  const first = await new DataSource({
    ...options,
    extra: { max: 2, connectionTimeoutMillis: 5000, Client: HearingClient },
  }).initialize();
  try {
    await bringUpToDate(first);
  } finally {
    await first.destroy();
  }
  const database = await new DataSource({
    ...options,
    extra: { max: 10, ...BOUNDS, Client: HearingClient },
  }).initialize();
  return database;
}
