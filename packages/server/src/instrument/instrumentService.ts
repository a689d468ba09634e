import { isDeepStrictEqual } from 'node:util';
import {
  type Answered,
  type InstrumentView,
  LARGEST_CERTIFICATE,
  MOST_CALIBRATIONS,
  MOST_CHECKS,
  type Read,
  type RegisteredInstrument,
} from '@fettle/core';
import type { EntityManager } from 'typeorm';
import { tellEvent } from '../access/events.js';
import { atMost } from '../database/atMost.js';
import type { Database } from '../database/Database.js';
import { oneAtATime } from '../database/oneAtATime.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { isCertificate } from './certificateFile.js';
import {
  calibrationEntity,
  type InstrumentRow,
  instrumentEntity,
  type ZeroCheckRow,
  zeroCheckEntity,
} from './instrumentEntity.js';
import { type CalibrationHead, summaryOf, viewOf } from './instrumentView.js';

/** Instruments at most, the retired ones included. */
const MOST_INSTRUMENTS = 2000;

const CALIBRATIONS = `SELECT "id", "instrument_id" AS "instrumentId", "done_on"::text AS "doneOn", "document", "wrong",
    "file_name" AS "fileName", "file_type" AS "fileType", octet_length("file") AS "bytes", "by", "at"
  FROM "calibration"`;

/** A list of rows by what they belong to. */
function byInstrument<Row extends { readonly instrumentId: string }>(rows: readonly Row[]): Map<string, Row[]> {
  const found = new Map<string, Row[]>();
  for (const row of rows) {
    const own = found.get(row.instrumentId);
    if (own) own.push(row);
    else found.set(row.instrumentId, [row]);
  }
  return found;
}

/** The workshop's register of instruments. */
export class InstrumentService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  /** All instruments by number, each with how its calibration stands and its last zero check. */
  async list(): Promise<Answered<'listInstruments'>> {
    const { manager } = this.database;
    const rows = await manager.find(instrumentEntity);
    const calibrations = byInstrument<CalibrationHead>(await manager.query(`${CALIBRATIONS} ORDER BY "done_on", "at"`));
    const last: ZeroCheckRow[] = await manager.query(
      `SELECT DISTINCT ON ("instrument_id") "id", "instrument_id" AS "instrumentId", "at", "by", "standard"::float8 AS "standard",
         "shown"::float8 AS "shown", "is_reset" AS "isReset"
       FROM "zero_check" ORDER BY "instrument_id", "at" DESC, "id"`,
    );
    const checks = new Map(last.map((row) => [row.instrumentId, row]));
    const counted: { id: string; count: number }[] = await manager.query(
      `SELECT "taken"->>'instrumentId' AS "id", count(*)::int AS "count" FROM "reading"
       WHERE "taken" ? 'instrumentId' AND "replaced_by" IS NULL AND "text" <> '' GROUP BY 1`,
    );
    const counts = new Map(counted.map(({ id, count }) => [id, count]));
    const order = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
    return {
      instruments: rows
        .sort((one, other) => order.compare(one.number, other.number))
        .map((row) =>
          summaryOf(row, calibrations.get(row.id) ?? [], checks.get(row.id) ?? null, counts.get(row.id) ?? 0),
        ),
    };
  }

  /** @throws ProblemError `not-found` */
  async get(id: string, manager: EntityManager = this.database.manager): Promise<InstrumentView> {
    const row = await manager.findOneBy(instrumentEntity, { id });
    if (!row) throw new ProblemError('not-found', `Instrument ${id} not found.`);
    const calibrations: CalibrationHead[] = await manager.query(
      `${CALIBRATIONS} WHERE "instrument_id" = $1 ORDER BY "done_on", "at"`,
      [id],
    );
    const checks = await manager.find(zeroCheckEntity, {
      where: { instrumentId: id },
      order: { at: 'DESC', id: 'ASC' },
      take: MOST_CHECKS,
    });
    return viewOf(row, calibrations, checks.reverse());
  }

  /** Registers an instrument (revision 0), or changes one. @throws ProblemError `stale-version`, `invalid-request` */
  put(id: string, body: Read<'putInstrument'>['body']): Promise<InstrumentView> {
    return this.database.transaction((manager) => this.putWithin(manager, id, body));
  }

  /** The same within a change of more. @throws ProblemError as `put` */
  async putWithin(
    manager: EntityManager,
    id: string,
    { revision, by, instrument }: Read<'putInstrument'>['body'],
  ): Promise<InstrumentView> {
    await oneAtATime(manager, ['instrument numbers']);
    const row = await manager.findOne(instrumentEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if ((row?.revision ?? 0) !== revision) {
      // Sent twice, it is made once.
      const there = row && (await this.get(id, manager));
      if (
        there?.revision === revision + 1 &&
        there.updatedBy === by &&
        isDeepStrictEqual(there.instrument, instrument)
      ) {
        return there;
      }
      const who = there ? `${there.updatedBy} has changed it` : 'It is not in the register';
      throw new ProblemError('stale-version', `${who}; this change was made from revision ${revision}.`, [], {
        current: there,
      });
    }
    await this.refuseNumber(manager, id, instrument);
    const values = { revision: revision + 1, number: instrument.number, updatedAt: new Date(), updatedBy: by };
    if (row) await manager.update(instrumentEntity, { id }, { ...values, document: instrument as never });
    else {
      await manager.insert(instrumentEntity, { id, ...values, document: instrument as never });
      const what = `register limit (${MOST_INSTRUMENTS} instruments) reached, retired ones included`;
      await atMost(manager, instrumentEntity, { most: MOST_INSTRUMENTS, path: '/instrument', what });
    }
    await this.tell(manager, row ? 'changed' : 'registered', id, instrument.number, by);
    return this.get(id, manager);
  }

  /** Enters a calibration. @throws ProblemError `not-found`, `invalid-request`, `id-in-use` */
  async calibrate(
    id: string,
    calibrationId: string,
    { by, calibration: { on, ...document }, file }: Read<'putCalibration'>['body'],
  ): Promise<{ readonly isNew: boolean; readonly view: InstrumentView }> {
    const data = file && Buffer.from(file.data, 'base64');
    if (data && data.length > LARGEST_CERTIFICATE) {
      throw invalidRequest([
        { path: '/file/data', message: `a certificate has at most 5 MB; this one has ${data.length} bytes` },
      ]);
    }
    if (file && data && !isCertificate(file.type, data)) {
      throw invalidRequest([{ path: '/file/data', message: `not a ${file.type} file` }]);
    }
    return this.database.transaction(async (manager) => {
      const row = await this.locked(manager, id);
      const there = await manager.findOneBy(calibrationEntity, { id: calibrationId });
      if (there) {
        const isSame = there.instrumentId === id && there.doneOn === on && isDeepStrictEqual(there.document, document);
        if (!isSame) throw new ProblemError('id-in-use', `Calibration id ${calibrationId} is already in use.`);
        return { isNew: false, view: await this.get(id, manager) };
      }
      await manager.insert(calibrationEntity, {
        id: calibrationId,
        instrumentId: id,
        doneOn: on,
        document: document as never,
        wrong: null,
        fileName: file?.name ?? null,
        fileType: file?.type ?? null,
        file: data,
        by,
        at: new Date(),
      });
      const what = `an instrument has at most ${MOST_CALIBRATIONS} calibrations`;
      await atMost(manager, calibrationEntity, {
        most: MOST_CALIBRATIONS,
        where: { instrumentId: id },
        path: '/calibration',
        what,
      });
      await this.touch(manager, row, by);
      await this.tell(manager, 'calibrated', id, row.number, by, on);
      return { isNew: true, view: await this.get(id, manager) };
    });
  }

  /** Says that a calibration is not to be trusted, or takes that back. @throws ProblemError `not-found` */
  async doubt(
    id: string,
    calibrationId: string,
    { by, reason }: Read<'doubtCalibration'>['body'],
  ): Promise<InstrumentView> {
    return this.database.transaction(async (manager) => {
      const row = await this.locked(manager, id);
      const wrong = reason === null ? null : { by, at: new Date().toISOString(), reason };
      const { affected } = await manager.update(
        calibrationEntity,
        { id: calibrationId, instrumentId: id },
        { wrong: wrong as never },
      );
      if (affected === 0)
        throw new ProblemError('not-found', `Calibration ${calibrationId} of this instrument not found.`);
      await this.touch(manager, row, by);
      await this.tell(manager, reason === null ? 'trusted' : 'doubted', id, row.number, by, reason ?? '');
      return this.get(id, manager);
    });
  }

  /** Records a zero check. @throws ProblemError `not-found`, `id-in-use` */
  async check(
    id: string,
    checkId: string,
    { at, ...check }: Read<'putZeroCheck'>['body'],
  ): Promise<{ readonly isNew: boolean; readonly view: InstrumentView }> {
    return this.database.transaction(async (manager) => {
      await this.locked(manager, id);
      const there = await manager.findOneBy(zeroCheckEntity, { id: checkId });
      if (there && there.instrumentId !== id) {
        throw new ProblemError('id-in-use', `Zero check id ${checkId} is already in use.`);
      }
      if (!there) await manager.insert(zeroCheckEntity, { id: checkId, instrumentId: id, at: new Date(at), ...check });
      return { isNew: !there, view: await this.get(id, manager) };
    });
  }

  /** The certificate of a calibration. @throws ProblemError `not-found` */
  async certificate(id: string, calibrationId: string): Promise<{ readonly type: string; readonly data: Buffer }> {
    const found = await this.database.manager.findOneBy(calibrationEntity, { id: calibrationId, instrumentId: id });
    if (!found?.file || found.fileType === null) {
      throw new ProblemError('not-found', `Certificate of calibration ${calibrationId} not found.`);
    }
    return { type: found.fileType, data: found.file };
  }

  private async locked(manager: EntityManager, id: string): Promise<InstrumentRow> {
    const row = await manager.findOne(instrumentEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!row) throw new ProblemError('not-found', `Instrument ${id} not found.`);
    return row;
  }

  /** Engines that have a copy see that there is something newer. */
  private async touch(manager: EntityManager, { id, revision }: InstrumentRow, by: string): Promise<void> {
    await manager.update(instrumentEntity, { id }, { revision: revision + 1, updatedAt: new Date(), updatedBy: by });
  }

  /** @throws ProblemError `invalid-request` where another instrument has the number */
  private async refuseNumber(manager: EntityManager, id: string, { number }: RegisteredInstrument): Promise<void> {
    const [other]: { number: string; kind: string }[] = await manager.query(
      `SELECT "number", "document"->>'kind' AS "kind" FROM "instrument" WHERE lower("number") = lower($1) AND "id" <> $2`,
      [number, id],
    );
    if (!other) return;
    const message = `number ${other.number} is taken: give each instrument a number of its own`;
    throw invalidRequest([{ path: '/instrument/number', message }]);
  }

  private tell(manager: EntityManager, what: string, subjectId: string, subject: string, by: string, detail = '') {
    return tellEvent({ manager }, { kind: 'instrument', what, subject, subjectId, by, detail });
  }
}
