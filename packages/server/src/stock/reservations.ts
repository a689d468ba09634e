import type { DocumentFault } from '@fettle/core';
import { type JobDocument, shellLabel, takenPieces } from '@fettle/core';
import { type EntityManager, In } from 'typeorm';
import { ProblemError } from '../problem/problem.js';
import { drawerEntity, reservationEntity } from './drawerEntity.js';

/** An engine whose choices are about to take halves and pieces from the workshop's drawer. */
export interface Taker {
  readonly jobId: string;
  readonly document: JobDocument;
}

interface Taken {
  count: number;
  readonly label: string;
  /** Where the document first takes one. */
  readonly path: string;
}

/** What the accepted choices take of each kind of half or piece that the workshop's drawer holds. */
function takenBy(document: JobDocument): Map<string, Taken> {
  const { choice, shells, pieces } = document;
  const taken = new Map<string, Taken>();
  for (const { piece, count, label, path } of takenPieces(document)) {
    const line = pieces[piece]?.line ?? null;
    if (line === null) continue;
    const known = taken.get(line);
    if (known) known.count += count;
    else taken.set(line, { count, label, path });
  }
  for (const [station, halves] of Object.entries(choice?.stations ?? {})) {
    for (const side of ['upper', 'lower'] as const) {
      const shell = shells[halves[side].shell];
      if (!shell || shell.line === null) continue;
      const known = taken.get(shell.line);
      if (known) known.count += 1;
      else
        taken.set(shell.line, {
          count: 1,
          label: shellLabel(shell),
          path: `/choice/stations/${station}/${side}/shell`,
        });
    }
  }
  return taken;
}

/**
 * Reserves what the choices of some engines take, in place of what they had reserved before. The rows of the drawer are locked
 * in one order, so that two engines that accept at the same moment wait for each other and never get the same half.
 *
 * @throws ProblemError `drawer-short` when one is not there or reserved for another engine; `halves-fitted` when the choice would take
 *   other numbers of what was fitted into an engine already
 */
export async function reserve(manager: EntityManager, takers: readonly Taker[]): Promise<void> {
  const jobIds = takers.map(({ jobId }) => jobId);
  const wanted = takers.map(({ jobId, document }) => ({ jobId, taken: takenBy(document) }));
  const before = await manager.find(reservationEntity, { where: { jobId: In(jobIds) } });
  const lineIds = [
    ...new Set([...before.map(({ lineId }) => lineId), ...wanted.flatMap(({ taken }) => [...taken.keys()])]),
  ].sort();
  if (lineIds.length === 0) return;
  const lines = await manager
    .createQueryBuilder(drawerEntity, 'line')
    .where({ id: In(lineIds) })
    .orderBy('line.id')
    .setLock('pessimistic_write')
    .getMany();
  const own = await manager.find(reservationEntity, { where: { jobId: In(jobIds) } });
  const isUnchanged = (jobId: string, taken: Map<string, Taken>) => {
    const rows = own.filter((row) => row.jobId === jobId);
    return rows.length === taken.size && rows.every(({ lineId, count }) => taken.get(lineId)?.count === count);
  };
  const changed = wanted.filter(({ jobId, taken }) => !isUnchanged(jobId, taken));
  const changedIds = changed.map(({ jobId }) => jobId);
  if (changed.length === 0) return;
  const used = own.filter(({ jobId, state }) => state === 'used' && changedIds.includes(jobId));
  for (const { jobId, lineId, count } of used) {
    const { taken } = changed.find((one) => one.jobId === jobId)!;
    if (taken.get(lineId)?.count !== count) {
      throw new ProblemError(
        'halves-fitted',
        'The shells reserved by this engine are marked as fitted. Undo that before selecting others.',
      );
    }
  }
  await manager.delete(reservationEntity, { jobId: In(changedIds), state: 'reserved' });
  const others = await manager.find(reservationEntity, { where: { lineId: In(lineIds), state: 'reserved' } });
  const free = new Map(lines.map(({ id, item }) => [id, item.onHand]));
  for (const { lineId, count } of others) free.set(lineId, (free.get(lineId) ?? 0) - count);
  const faults: DocumentFault[] = [];
  for (const { jobId, taken } of changed) {
    for (const [lineId, { count, label, path }] of taken) {
      // What was fitted has left the drawer.
      if (used.some((row) => row.jobId === jobId && row.lineId === lineId)) continue;
      const left = free.get(lineId);
      if (left === undefined) faults.push({ path, message: `${label} is no longer in workshop stock` });
      else if (left < count) {
        faults.push({ path, message: `Need ${count} × ${label}, ${Math.max(0, left)} free in workshop stock` });
      } else {
        free.set(lineId, left - count);
        await manager.insert(reservationEntity, { jobId, lineId, count, state: 'reserved' });
      }
    }
  }
  if (faults.length > 0) {
    const detail = `${faults.map(({ message }) => message).join('; ')}. Another engine may have reserved them: select again.`;
    throw new ProblemError('drawer-short', detail, faults);
  }
}

/** Gives back what an engine has reserved; what was fitted into it stays used. */
export async function release(manager: EntityManager, jobId: string): Promise<void> {
  await manager.delete(reservationEntity, { jobId, state: 'reserved' });
}
