import {
  type Answered,
  type Calibration,
  calibrationOn,
  driftSpans,
  dueAfter,
  type InstrumentView,
  type RegisteredInstrument,
  repeatsOf,
  suspectSpan,
  type TouchedEngine,
} from '@fettle/core';
import type { EntityManager } from 'typeorm';
import { zeroCheckEntity } from './instrumentEntity.js';
import { zeroCheckOf } from './instrumentView.js';

interface ReadingMoment {
  readonly job_id: string;
  readonly at: Date;
}

/** What is to be said of a reading by the moment when it was taken. Each calibration, and each span, is looked up once. */
function judgeOf(
  { calibrateAfterMonths, drift }: RegisteredInstrument,
  calibrations: readonly Calibration[],
  spans: ReturnType<typeof driftSpans>,
): (at: string) => { readonly overdue: boolean; readonly wrong: boolean; readonly adrift: boolean } {
  const suspects = spans.filter((span) => Math.abs(span.drift) > drift);
  return (at) => {
    const calibration = calibrationOn(calibrations, at);
    const due = calibration && dueAfter(calibration, calibrateAfterMonths);
    return {
      overdue: due !== null && due < at.slice(0, 10),
      wrong: calibration !== null && calibration.wrong !== null,
      adrift: suspectSpan(suspects, at, drift) !== null,
    };
  };
}

/**
 * The engines with current readings taken with an instrument, those with the shells in among them, those with readings in doubt first. Each
 * reading is judged by the calibration that was valid when it was read, and by the zero checks before and after it.
 */
export async function touchedEngines(
  manager: EntityManager,
  { id, instrument, calibrations }: InstrumentView,
): Promise<Answered<'instrumentEngines'>> {
  const checks = (await manager.findBy(zeroCheckEntity, { instrumentId: id })).map(zeroCheckOf);
  const read: ReadingMoment[] = await manager.query(
    `SELECT "job_id", "at" FROM "reading"
     WHERE "taken" ? 'instrumentId' AND "taken"->>'instrumentId' = $1 AND "replaced_by" IS NULL AND "text" <> ''
     UNION ALL
     SELECT "job"."id", (one->>'at')::timestamptz FROM "job",
       jsonb_path_query("document", '$.trials.*.readings.*') one
     WHERE "job"."instruments" @> ARRAY[$1] AND one->>'instrumentId' = $1
     UNION ALL
     SELECT "job"."id", (one->>'at')::timestamptz FROM "job",
       jsonb_path_query("document", '$.trials.*.earlier[*].readings.*') one
     WHERE "job"."instruments" @> ARRAY[$1] AND one->>'instrumentId' = $1
     ORDER BY "at"`,
    [id],
  );
  const judge = judgeOf(instrument, calibrations, driftSpans(checks));
  const found = new Map<string, Omit<TouchedEngine, 'id' | 'name' | 'unit' | 'isClosed'>>();
  for (const { job_id, at } of read) {
    const moment = at.toISOString();
    const is = judge(moment);
    const before = found.get(job_id);
    found.set(job_id, {
      readings: (before?.readings ?? 0) + 1,
      first: before?.first ?? moment,
      last: moment,
      overdue: (before?.overdue ?? 0) + Number(is.overdue),
      wrong: (before?.wrong ?? 0) + Number(is.wrong),
      adrift: (before?.adrift ?? 0) + Number(is.adrift),
    });
  }
  const heads: { id: string; name: string; unit: TouchedEngine['unit']; closed: boolean }[] = await manager.query(
    `SELECT "id", "name", "unit", "deleted_at" IS NOT NULL AS "closed" FROM "job" WHERE "id" = ANY($1)`,
    [[...found.keys()]],
  );
  const doubts = ({ overdue, wrong, adrift }: TouchedEngine) => overdue + wrong + adrift;
  return {
    engines: heads
      .map(({ id: job, name, unit, closed }) => ({ id: job, name, unit, isClosed: closed, ...found.get(job)! }))
      .sort((one, other) => doubts(other) - doubts(one) || (one.last < other.last ? 1 : -1)),
  };
}

/**
 * How readings of one place that were taken again with an instrument repeat, over all engines.
 */
export async function instrumentRepeats(
  manager: EntityManager,
  { id, instrument }: InstrumentView,
): Promise<Answered<'instrumentRepeats'>> {
  const pairs: { difference: number }[] = await manager.query(
    `SELECT (now."nm" - before."nm")::float8 AS "difference"
     FROM "reading" now JOIN "reading" before ON before."id" = now."replaces"
     WHERE now."taken" ? 'instrumentId' AND now."taken"->>'instrumentId' = $1 AND before."taken"->>'instrumentId' = $1
       AND now."taken"->>'reason' = 'read again' AND now."nm" IS NOT NULL AND before."nm" IS NOT NULL`,
    [id],
  );
  const { repeatability, operator, resolution } = instrument;
  // What is known of one reading now, its setting apart; what an instrument does not tell apart it cannot repeat better than.
  const expected = Math.max(1, Math.hypot(repeatability, operator, resolution / 2));
  return {
    repeats: repeatsOf(
      pairs.map(({ difference }) => difference),
      expected,
    ),
  };
}
