import {
  drawerItemLabel,
  SAMPLE_ENGINES,
  SAMPLE_INSTRUMENTS,
  SAMPLE_STOCK,
  SAMPLE_TYPES,
  type SamplesRemoved,
} from '@fettle/core';
import { type DataSource, In, IsNull } from 'typeorm';
import { inOneTransaction } from '../database/Database.js';
import { DrawerService } from '../drawer/drawerService.js';
import { typeEntity } from '../engineType/typeEntity.js';
import { TypeService } from '../engineType/typeService.js';
import { leaveSamplesOut } from '../history/knownEngines.js';
import { InstrumentService } from '../instrument/instrumentService.js';
import { jobEntity } from '../job/jobEntity.js';
import { JobService } from '../job/jobService.js';
import { drawerEntity, reservationEntity } from '../stock/drawerEntity.js';

/**
 * Closes the sample engines, archives the sample types, retires the sample instruments and removes the sample stock: all of it or nothing. What was typed into them stays,
 * each can be brought back. Stock that another engine has reserved, or that was fitted, stays.
 *
 * @param onTouched told of each engine that was closed
 */
export async function removeSamples(
  database: DataSource,
  by: string,
  onTouched: (id: string) => void,
): Promise<SamplesRemoved> {
  const removed = { engines: 0, types: 0, instruments: 0, stock: 0, kept: [] as string[] };
  await inOneTransaction(database, async (inside) => {
    const jobs = new JobService(inside, onTouched);
    // In one order everywhere: two who remove them at once wait for each other.
    const open = await inside.manager.find(jobEntity, {
      select: { id: true, version: true },
      where: { id: In([...SAMPLE_ENGINES]), deletedAt: IsNull() },
      order: { id: 'ASC' },
      lock: { mode: 'pessimistic_write' },
    });
    for (const { id, version } of open) await jobs.remove(id, { version, by });
    removed.engines = open.length;
    await leaveSamplesOut(inside, by);
    const types = await inside.manager.findBy(typeEntity, { id: In([...SAMPLE_TYPES]), archivedAt: IsNull() });
    for (const { id } of types) await new TypeService(inside).setArchived(id, true, by);
    removed.types = types.length;
    const register = new InstrumentService(inside);
    for (const { id, revision, instrument } of (await register.list()).instruments) {
      if (!SAMPLE_INSTRUMENTS.includes(id) || instrument.state === 'retired') continue;
      await register.put(id, { revision, by, instrument: { ...instrument, state: 'retired' } });
      removed.instruments += 1;
    }
    const lines = await inside.manager.find(drawerEntity, {
      where: { id: In([...SAMPLE_STOCK]) },
      order: { id: 'ASC' },
      lock: { mode: 'pessimistic_write' },
    });
    const held = new Set(
      (await inside.manager.findBy(reservationEntity, { lineId: In(lines.map(({ id }) => id)) })).map(
        ({ lineId }) => lineId,
      ),
    );
    const free = lines.filter(({ id }) => !held.has(id));
    removed.kept = lines.filter(({ id }) => held.has(id)).map(({ item }) => drawerItemLabel(item));
    removed.stock = free.length;
    if (free.length === 0) return;
    const changes = free.map(({ id, version }) => ({ id, version, half: null }));
    await new DrawerService(inside, onTouched).move({ by, kind: 'remove', note: 'Samples removed', changes });
  });
  return removed;
}
