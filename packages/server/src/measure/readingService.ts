import type { Reading, ReadingDraft } from '@fettle/core';
import { FEATURE_TABLE, partCount, sizeOfDraft } from '@fettle/core';
import { IsNull } from 'typeorm';
import type { Database } from '../database/Database.js';
import { jobEntity } from '../job/jobEntity.js';
import { keepProgress } from '../job/keepProgress.js';
import { lockJob } from '../job/lockJob.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { readingEntity } from './readingEntity.js';
import { readingOf } from './readingOf.js';

/** Readings, saved one by one. None is ever overwritten: a correction names the reading it replaces. */
export class ReadingService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  /**
   * Keeps a reading under its client-made id; sending the same one again changes nothing.
   *
   * @throws ProblemError `stale-version` with the reading that stands there now, when `replaces` does not name it;
   *   `id-in-use` when the id stands for another reading; `invalid-request` for a main the engine does not have
   */
  async save(jobId: string, id: string, draft: ReadingDraft): Promise<{ reading: Reading; made: boolean }> {
    return this.database.transaction(async (manager) => {
      const job = await lockJob(manager, jobId);
      if (job.deletedAt) throw new ProblemError('not-found', 'This engine was deleted; bring it back first.');
      const known = await manager.findOne(readingEntity, { where: { id } });
      if (known) {
        const same =
          known.jobId === jobId &&
          known.text === draft.text &&
          known.feature === draft.feature &&
          known.station === draft.station &&
          known.slot === draft.slot &&
          known.setting === draft.setting &&
          known.unit === draft.unit;
        if (!same)
          throw new ProblemError('id-in-use', `The id ${id} already belongs to another reading; make a new id.`);
        return { reading: readingOf(known), made: false };
      }
      const { layout } = job.document;
      const { family, slots } = FEATURE_TABLE[draft.feature];
      const count = partCount(layout, draft.feature);
      const faults = [];
      if (draft.station > count) {
        const message = `this engine has ${count} ${family}s; there is no ${family} ${draft.station}`;
        faults.push({ path: '/station', message });
      }
      if (!slots.includes(draft.slot)) {
        faults.push({
          path: '/slot',
          message: `${draft.slot} is not read on this feature; use ${slots.join(', ')}`,
        });
      }
      if (faults.length > 0) throw invalidRequest(faults);

      const { feature, station, slot } = draft;
      const standing = await manager.findOne(readingEntity, {
        where: { jobId, feature, station, slot, replacedBy: IsNull() },
      });
      if ((standing?.id ?? null) !== draft.replaces) {
        const detail = standing
          ? `${standing.by} has entered “${standing.text}” there since.`
          : 'The reading this one corrects does not stand there.';
        throw new ProblemError('stale-version', detail, [], { current: standing ? readingOf(standing) : null });
      }
      if (standing) await manager.update(readingEntity, { id: standing.id }, { replacedBy: id });
      const receivedAt = new Date();
      const row = {
        ...draft,
        id,
        jobId,
        nm: sizeOfDraft(draft),
        taken: draft.taken ?? null,
        replacedBy: null,
        at: new Date(draft.at),
        receivedAt,
      };
      await manager.insert(readingEntity, row);
      await manager.update(
        jobEntity,
        { id: jobId },
        { revision: job.revision + 1, updatedAt: receivedAt, updatedBy: draft.by },
      );
      await keepProgress(manager, [jobId]);
      return { reading: readingOf(row), made: true };
    });
  }
}
