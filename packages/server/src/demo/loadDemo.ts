import { createHash } from 'node:crypto';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { type Database, inOneTransaction } from '../database/Database.js';
import { DrawerService } from '../drawer/drawerService.js';
import { TypeService } from '../engineType/typeService.js';
import { jobEntity } from '../job/jobEntity.js';
import { JobService } from '../job/jobService.js';
import { ReadingService } from '../job/readingService.js';
import { demoEngines } from './demoEngine.js';
import { demoDrawer, demoPieces } from './demoStock.js';
import { demoTypes } from './demoTypes.js';

/** A UUID (version 8, RFC 9562) that is always the same for the same name. */
function uuidOf(name: string): string {
  const hex = createHash('sha256').update(name).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** Puts the demo engines into a database that never held an engine, all of it or nothing; does nothing otherwise. */
export async function loadDemo(database: DataSource, log: Logger): Promise<void> {
  if ((await database.manager.count(jobEntity)) > 0) return;
  await inOneTransaction(database, putDemo);
  log.info('demo engines loaded');
}

async function putDemo(database: Database): Promise<void> {
  const jobs = new JobService(database);
  const readings = new ReadingService(database);
  const start = Date.now();
  let minute = 0;
  const drawer = new DrawerService(database);
  const types = new TypeService(database);
  for (const { id, type } of demoTypes()) await types.put(id, 0, 'Teasel', type);
  const changes = [...demoDrawer(), ...demoPieces()].map((one) => ({ version: 0, ...one }));
  await drawer.move({ by: 'Teasel', kind: 'receive', note: 'First stock', changes });
  for (const engine of demoEngines()) {
    const { unit, measuring } = engine.document;
    await jobs.create(engine.id, engine.by, engine.document);
    for (const { feature, slot, by, texts } of engine.readings) {
      for (const [at, text] of texts.entries()) {
        if (text === '') continue;
        minute += 1;
        await readings.save(engine.id, uuidOf(`${engine.id}/${feature}/${slot}/${at}`), {
          feature,
          station: at + 1,
          slot,
          text,
          unit,
          setting: measuring.setting[feature],
          replaces: null,
          by,
          at: new Date(start - 3_600_000 + minute * 30_000).toISOString(),
        });
      }
    }
  }
}
