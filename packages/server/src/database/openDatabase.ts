import { DataSource } from 'typeorm';
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

/**
 * Opens the database and brings its tables up to date.
 *
 * @param url a postgresql:// address
 */
export async function openDatabase(url: string): Promise<DataSource> {
  const database = new DataSource({
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
    ],
    migrations: [
      JobsAndReadings1795000000001,
      WorkshopDrawer1795000000002,
      EngineTypesAndStock1795000000003,
      Lists1795000000004,
      Pieces1795000000005,
      Taken1795000000006,
      SheetsAndPhotos1795000000007,
    ],
    migrationsTransactionMode: 'each',
    synchronize: false,
    logging: false,
    extra: { max: 10, connectionTimeoutMillis: 5000 },
  });
  await database.initialize();
  await database.runMigrations();
  // What an earlier build has said of how far an engine is may be said otherwise now.
  await database.query(`UPDATE "job" SET "progress_of" = NULL WHERE "progress_of" IS NOT NULL`);
  return database;
}
