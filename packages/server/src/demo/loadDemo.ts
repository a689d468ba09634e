import { createHash } from 'node:crypto';
import {
  formatLength,
  type InstrumentView,
  nanometres,
  type Reading,
  SAMPLE_SIGNED,
  type Taken,
  takenOver,
} from '@fettle/core';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { type Database, inOneTransaction } from '../database/Database.js';
import { DrawerService } from '../drawer/drawerService.js';
import { TypeService } from '../engineType/typeService.js';
import { InstrumentService } from '../instrument/instrumentService.js';
import { studyEntity, studyEntryEntity } from '../instrument/studyEntity.js';
import { changeEntity, type JobRow, jobEntity } from '../job/jobEntity.js';
import { headOf, JobService } from '../job/jobService.js';
import { ReadingService } from '../job/readingService.js';
import { type ReadingRow, readingEntity } from '../measure/readingEntity.js';
import { type SignedSheetRow, sheetEntity } from '../sheet/sheetEntity.js';
import { signedSheet } from '../sheet/signedSheet.js';
import { demoEngines } from './demoEngine.js';
import { DEMO_GAUGE, type DemoInstrument, demoInstruments, demoStudy } from './demoInstruments.js';
import { type SignedEngine, signedEngines, thirdBuild } from './demoSigned.js';
import { demoDrawer, demoPieces } from './demoStock.js';
import { demoTypes } from './demoTypes.js';
import type { DemoEngine } from './demoWriting.js';

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

/** Registers an instrument with what was found on it so long before. */
async function putInstrument(register: InstrumentService, one: DemoInstrument, now: number): Promise<void> {
  const by = 'Teasel';
  await register.put(one.id, { revision: 0, by, instrument: one.instrument });
  for (const { daysAgo, ...calibration } of one.calibrations) {
    const on = new Date(now - daysAgo * 86_400_000).toISOString().slice(0, 10);
    await register.calibrate(one.id, uuidOf(`${one.id}/calibration/${daysAgo}`), {
      by,
      calibration: { ...calibration, on },
      file: null,
    });
  }
  for (const { hoursAgo, shown, isReset } of one.checks) {
    const at = new Date(now - hoursAgo * 3_600_000).toISOString();
    const check = { at, by, standard: null, shown: nanometres(shown), isReset };
    await register.check(one.id, uuidOf(`${one.id}/check/${hoursAgo}`), check);
  }
}

/** A whole study of the bore gauge, a week ago. */
async function putStudy({ manager }: Database, now: number): Promise<void> {
  const { plan, entries } = demoStudy();
  const at = new Date(now - 7 * 86_400_000);
  const studyId = uuidOf('gauge study of the bore gauge');
  const row = { id: studyId, instrumentId: DEMO_GAUGE, plan: plan as never, by: 'Teasel', at, takenAt: null };
  await manager.insert(studyEntity, row);
  const rows = entries.map((one) => ({ ...one, studyId, text: formatLength(one.nm, 'mm', 4), by: one.person, at }));
  await manager.insert(studyEntryEntity, rows);
}

/** How a reading was taken with an instrument of the register; nothing where none is told. */
function takenWith(view: InstrumentView | undefined): { readonly taken?: Taken } {
  if (view === undefined) return {};
  const { number, needle } = view.instrument;
  const taken = {
    instrument: number,
    instrumentId: view.id,
    needle: needle ?? 'bigger',
    celsius: null,
    gaugeCelsius: null,
    reason: '',
  };
  return { taken };
}

/** Rows that are put into a table at once. */
const TOGETHER = 500;

/** Engines that were signed and closed, straight into their tables: each as if it had been typed. */
export async function putSigned({ manager }: Database, engines: readonly SignedEngine[]): Promise<Map<string, string>> {
  const hashes = new Map<string, string>();
  const jobs: JobRow[] = [];
  const readings: ReadingRow[] = [];
  const sheets: SignedSheetRow[] = [];
  for (const { id, by, document, readings: current, replaced, signedAt } of engines) {
    const at = new Date(document.choice?.at ?? signedAt);
    const row = {
      id,
      version: 1,
      revision: 1,
      document,
      ...headOf(document),
      progress: null,
      progressOf: null,
      progressBuild: null,
      createdAt: at,
      createdBy: by,
      updatedAt: signedAt,
      updatedBy: by,
      deletedAt: signedAt,
    };
    jobs.push(row);
    const rowOf = (reading: Reading, replacedBy: string | null): ReadingRow => {
      const moment = new Date(reading.at);
      const { taken = null, ...rest } = reading;
      return { ...rest, jobId: id, at: moment, receivedAt: moment, replacedBy, taken, device: null };
    };
    for (const reading of current) {
      const before = replaced.get(reading.id);
      if (before) readings.push(rowOf(before, reading.id));
      readings.push(rowOf(reading, null));
    }
    const signing = { by, at: signedAt, revision: 1, reason: '', device: null };
    const sheet = signedSheet({ id, document, readings: [...current], version: 1 }, signing);
    hashes.set(id, sheet.hash);
    sheets.push(sheet);
  }
  const put = async (entity: { readonly options: { readonly name: string } }, rows: readonly object[]) => {
    for (let at = 0; at < rows.length; at += TOGETHER) {
      await manager.insert(entity.options.name, rows.slice(at, at + TOGETHER) as never);
    }
  };
  await put(jobEntity, jobs);
  const created = jobs.map(({ id, createdAt, createdBy, document }) => ({
    jobId: id,
    version: 1,
    at: createdAt,
    by: createdBy,
    kind: 'created',
    changes: [{ path: '', to: document }],
    device: null,
  }));
  await put(changeEntity, created);
  await put(readingEntity, readings);
  await put(sheetEntity, sheets);
  return hashes;
}

async function putDemo(database: Database): Promise<void> {
  const jobs = new JobService(database);
  const readings = new ReadingService(database);
  const start = Date.now();
  let turn = 0;
  const drawer = new DrawerService(database);
  const types = new TypeService(database);
  for (const { id, type } of demoTypes()) await types.put(id, 0, 'Teasel', type);
  const changes = [...demoDrawer(), ...demoPieces()].map((one) => ({ version: 0, ...one }));
  await drawer.move({ by: 'Teasel', kind: 'receive', note: 'First stock', changes });
  const register = new InstrumentService(database);
  for (const one of demoInstruments()) await putInstrument(register, one, start);
  await putStudy(database, start);
  const signed = signedEngines(SAMPLE_SIGNED.length, start);
  const hashes = await putSigned(database, signed);
  const second = signed.find(({ document }) => document.name.endsWith('second build'))!;
  const third = thirdBuild(second, { revision: 1, hash: hashes.get(second.id)! }, start);
  for (const engine of [third, ...demoEngines()] as DemoEngine[]) {
    const { unit, measuring } = engine.document;
    const views = new Map(
      await Promise.all(
        Object.values(engine.instruments ?? {}).map(
          async (id) => [id, await register.get(id, database.manager)] as const,
        ),
      ),
    );
    const registered = Object.fromEntries(
      [...views].map(([id, { revision, instrument, calibrations, checks }]) => [
        id,
        takenOver({ revision, instrument, calibrations, checks }, new Date(start - 3_600_000).toISOString()),
      ]),
    );
    await jobs.create(engine.id, engine.by, { ...engine.document, registered, using: { ...engine.instruments } });
    for (const { feature, slot, by, texts } of engine.readings) {
      for (const [at, text] of texts.entries()) {
        if (text === '') continue;
        turn += 1;
        await readings.save(engine.id, uuidOf(`${engine.id}/${feature}/${slot}/${at}`), {
          feature,
          station: at + 1,
          slot,
          text,
          unit,
          setting: measuring.setting[feature],
          replaces: null,
          by,
          ...takenWith(views.get(engine.instruments?.[feature] ?? '')),
          at: new Date(start - 3_600_000 + turn * 12_000).toISOString(),
        });
      }
    }
  }
}
