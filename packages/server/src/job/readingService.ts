import type { CrankLayout, Reading, ReadingDraft } from '@fettle/core';
import { FEATURE_TABLE, jobDocumentSchema, partCount, readingOfDraft } from '@fettle/core';
import { In } from 'typeorm';
import { acting } from '../access/acting.js';
import type { Database } from '../database/Database.js';
import { type ReadingRow, readingEntity } from '../measure/readingEntity.js';
import { readingOf } from '../measure/readingOf.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { jobEntity } from './jobEntity.js';

/** What came of a reading that was sent. */
export interface Kept {
  readonly reading: Reading;
  /** True if it is new; else it was sent before. */
  readonly made: boolean;
}

/** A reading that waits to be kept. */
interface Waiting {
  readonly jobId: string;
  readonly id: string;
  readonly draft: ReadingDraft;
  readonly device: string | null;
  readonly done: (kept: Kept) => void;
  readonly failed: (error: unknown) => void;
}

/** The layout of an engine as of a version of it. */
interface KnownLayout {
  readonly version: number;
  readonly layout: CrankLayout;
}

/** What the database says came of one. */
interface Outcome {
  readonly place: number;
  readonly outcome: 'made' | 'known' | 'stale' | 'moved' | 'no-engine' | 'deleted';
  /** The reading that stands there, or that has the id. */
  readonly other: string | null;
}

/** Maximum readings saved in one transaction. */
const MOST_TOGETHER = 200;
/** The layouts of so many engines are remembered. */
const MOST_LAYOUTS = 500;
/** An engine whose document is changed so often meanwhile is given up. */
const MOST_TRIES = 5;

function isSame(known: ReadingRow, { jobId, draft }: Waiting): boolean {
  return (
    known.jobId === jobId &&
    known.text === draft.text &&
    known.feature === draft.feature &&
    known.station === draft.station &&
    known.slot === draft.slot &&
    known.setting === draft.setting &&
    known.unit === draft.unit
  );
}

/** Why a reading was not kept. @param there what stands in its place */
function refusalOf({ jobId, id }: Waiting, outcome: Outcome['outcome'], there: ReadingRow | null): ProblemError {
  if (outcome === 'no-engine') return new ProblemError('not-found', `Engine ${jobId} not found.`);
  if (outcome === 'deleted') return new ProblemError('not-found', 'This engine is closed. Reopen it first.');
  if (outcome === 'moved') {
    return new ProblemError('too-busy', 'The engine is being changed all the time; send it again.');
  }
  if (outcome === 'known') {
    return new ProblemError('id-in-use', `The id ${id} already belongs to another reading; make a new id.`);
  }
  const detail = there
    ? `${there.by} has entered “${there.text}” there since.`
    : 'That reading has been replaced. Reload, then correct it.';
  return new ProblemError('stale-version', detail, [], { current: there ? readingOf(there) : null });
}

/** @throws ProblemError `invalid-request` for a part that the engine does not have */
function checkPlace(layout: CrankLayout, { feature, station, slot }: ReadingDraft): void {
  const { family, slots } = FEATURE_TABLE[feature];
  const count = partCount(layout, feature);
  const faults = [];
  if (station > count) {
    const message = `this engine has ${count} ${family}s; there is no ${family} ${station}`;
    faults.push({ path: '/station', message });
  }
  if (!slots.includes(slot)) {
    faults.push({ path: '/slot', message: `${slot} is not read on this feature; use ${slots.join(', ')}` });
  }
  if (faults.length > 0) throw invalidRequest(faults);
}

/**
 * Readings, each under its client-made id. None is ever overwritten: a correction names the reading it replaces. Those that arrive while others
 * are being kept are kept together in the next transaction: each is on disk before it is answered, and a busy bench waits for the disk once.
 */
export class ReadingService {
  private readonly database: Database;
  private readonly onKept: (jobId: string) => void;
  private waiting: Waiting[] = [];
  private isKeeping = false;
  private readonly layouts = new Map<string, KnownLayout>();

  /** @param onKept told of each engine that has another reading now */
  constructor(database: Database, onKept: (jobId: string) => void = () => {}) {
    this.database = database;
    this.onKept = onKept;
  }

  /**
   * Keeps a reading; sending the same one again changes nothing.
   *
   * @throws ProblemError `stale-version` with the reading that stands there now, when `replaces` does not name it;
   *   `id-in-use` when the id stands for another reading; `invalid-request` for a main the engine does not have
   */
  save(jobId: string, id: string, draft: ReadingDraft): Promise<Kept> {
    const { device } = acting();
    return new Promise((done, failed) => {
      this.waiting.push({ jobId, id, draft, device, done, failed });
      if (!this.isKeeping) void this.keepWaiting();
    });
  }

  private async keepWaiting(): Promise<void> {
    this.isKeeping = true;
    while (this.waiting.length > 0) {
      const together = this.waiting.splice(0, MOST_TOGETHER);
      try {
        await this.keep(together);
      } catch (error) {
        // One of them may be what the database does not take: then the others are not kept from being.
        if (together.length === 1) together[0]!.failed(error);
        else for (const one of together) await this.keep([one]).catch(one.failed);
      }
    }
    this.isKeeping = false;
  }

  /** Keeps readings in one transaction, in the order they came; each is answered once all are on disk. */
  private async keep(together: readonly Waiting[], tries = 1): Promise<void> {
    const good: (Waiting & KnownLayout)[] = [];
    for (const one of together) {
      try {
        const known = await this.layoutOf(one.jobId);
        checkPlace(known.layout, one.draft);
        good.push({ ...one, ...known });
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        one.failed(error);
      }
    }
    if (good.length === 0) return;
    const receivedAt = new Date();
    const items = good.map(({ jobId, id, draft, device, version }) => ({
      ...readingOfDraft(id, draft),
      jobId,
      device,
      version,
      taken: draft.taken ?? null,
      receivedAt,
    }));
    const { manager } = this.database;
    const outcomes: Outcome[] = await manager.query('SELECT * FROM "keep_readings"($1::jsonb)', [
      JSON.stringify(items),
    ]);
    const others = outcomes.flatMap(({ other }) => (other === null ? [] : [other]));
    const rows = others.length === 0 ? [] : await manager.find(readingEntity, { where: { id: In(others) } });
    const byId = new Map(rows.map((row) => [row.id, row]));
    const moved: Waiting[] = [];
    for (const { place, outcome, other } of outcomes) {
      const one = good[place]!;
      const there = other === null ? null : (byId.get(other) ?? null);
      if (outcome === 'moved' && tries < MOST_TRIES) {
        this.layouts.delete(one.jobId);
        moved.push(one);
      } else this.answer(one, outcome, there);
    }
    if (moved.length > 0) await this.keep(moved, tries + 1);
  }

  private answer(one: Waiting, outcome: Outcome['outcome'], there: ReadingRow | null): void {
    if (outcome === 'made') {
      this.onKept(one.jobId);
      one.done({ reading: readingOfDraft(one.id, one.draft), made: true });
    } else if (outcome === 'known' && there && isSame(there, one)) {
      one.done({ reading: readingOf(there), made: false });
    } else one.failed(refusalOf(one, outcome, there));
  }

  /** The layout of an engine, as of the version that was read last. @throws ProblemError `not-found` */
  private async layoutOf(id: string): Promise<KnownLayout> {
    const kept = this.layouts.get(id);
    if (kept) return kept;
    const row = await this.database.manager.findOne(jobEntity, {
      where: { id },
      select: { id: true, version: true, document: true },
    });
    if (!row) throw new ProblemError('not-found', `Engine ${id} not found.`);
    const known = { version: row.version, layout: jobDocumentSchema.parse(row.document).layout };
    this.layouts.set(id, known);
    if (this.layouts.size > MOST_LAYOUTS) this.layouts.delete(this.layouts.keys().next().value!);
    return known;
  }
}
