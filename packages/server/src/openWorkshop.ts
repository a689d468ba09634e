import type { DataSource } from 'typeorm';
import { deviceEntity, personEntity } from './access/accessEntities.js';
import { photoEntity } from './assembly/photoEntity.js';
import { openDatabase } from './database/openDatabase.js';
import { typeEntity, typeRevisionEntity } from './engineType/typeEntity.js';
import { calibrationEntity, instrumentEntity, zeroCheckEntity } from './instrument/instrumentEntity.js';
import { studyEntity, studyEntryEntity } from './instrument/studyEntity.js';
import { changeEntity, jobEntity } from './job/jobEntity.js';
import { readingEntity } from './measure/readingEntity.js';
import { sheetEntity } from './sheet/sheetEntity.js';
import { drawerEntity, kitEntity, movementEntity, reservationEntity } from './stock/drawerEntity.js';

/** The rows of every feature. */
const ENTITIES = [
  jobEntity,
  changeEntity,
  readingEntity,
  drawerEntity,
  reservationEntity,
  typeEntity,
  typeRevisionEntity,
  instrumentEntity,
  calibrationEntity,
  zeroCheckEntity,
  studyEntity,
  studyEntryEntity,
  movementEntity,
  kitEntity,
  sheetEntity,
  photoEntity,
  personEntity,
  deviceEntity,
];

/**
 * Opens the workshop's database, with the rows of every feature, and brings its tables up to date.
 *
 * @param url a postgresql:// address
 * @throws NewerDatabase where a later build has written it
 */
export function openWorkshop(url: string): Promise<DataSource> {
  return openDatabase(url, ENTITIES);
}
