import { DataSource, type DataSourceOptions } from 'typeorm';
import { deviceEntity, personEntity } from '../access/accessEntities.js';
import { photoEntity } from '../assembly/photoEntity.js';
import { drawerEntity, kitEntity, movementEntity, reservationEntity } from '../drawer/drawerEntity.js';
import { typeEntity, typeRevisionEntity } from '../engineType/typeEntity.js';
import { changeEntity, jobEntity } from '../job/jobEntity.js';
import { readingEntity } from '../measure/readingEntity.js';
import { sheetEntity } from '../sheet/sheetEntity.js';
import { JobsAndReadings1795000000001 } from './migrations/0001-jobs-and-readings.js';
import { WorkshopDrawer1795000000002 } from './migrations/0002-workshop-drawer.js';
import { EngineTypesAndStock1795000000003 } from './migrations/0003-engine-types-and-stock.js';
import { Lists1795000000004 } from './migrations/0004-lists.js';
import { Pieces1795000000005 } from './migrations/0005-pieces.js';
import { Taken1795000000006 } from './migrations/0006-taken.js';
import { SheetsAndPhotos1795000000007 } from './migrations/0007-sheets-and-photos.js';
import { PeopleAndDevices1795000000008 } from './migrations/0008-people-and-devices.js';

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

/**
 * Opens the database and brings its tables up to date.
 *
 * @param url a postgresql:// address
 */
export async function openDatabase(url: string): Promise<DataSource> {
  const options = {
    type: 'postgres',
    url,
    entities: [
      jobEntity,
      changeEntity,
      readingEntity,
      drawerEntity,
      reservationEntity,
      typeEntity,
      typeRevisionEntity,
      movementEntity,
      kitEntity,
      sheetEntity,
      photoEntity,
      personEntity,
      deviceEntity,
    ],
    migrations: [
      JobsAndReadings1795000000001,
      WorkshopDrawer1795000000002,
      EngineTypesAndStock1795000000003,
      Lists1795000000004,
      Pieces1795000000005,
      Taken1795000000006,
      SheetsAndPhotos1795000000007,
      PeopleAndDevices1795000000008,
    ],
    migrationsTransactionMode: 'each',
    synchronize: false,
    logging: false,
  } as const satisfies DataSourceOptions;
  // Bringing tables up to date may take as long as it takes; nothing else may.
  const first = await new DataSource({ ...options, extra: { max: 2, connectionTimeoutMillis: 5000 } }).initialize();
  try {
    await first.runMigrations();
  } finally {
    await first.destroy();
  }
  const database = await new DataSource({ ...options, extra: { max: 10, ...BOUNDS } }).initialize();
  // What an earlier build has said of how far an engine is may be said otherwise now.
  await database.query(`UPDATE "job" SET "progress_of" = NULL WHERE "progress_of" IS NOT NULL`);
  return database;
}
