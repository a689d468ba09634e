import { JOB_FORMAT } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { databaseFrom } from '../testing/databaseFrom.js';
import { runningServer } from '../testing/runningServer.js';

/** What builds before this one have left in a database: the demo with accepted choices, fitted halves and an engine off the bench. */
const DUMPS = [
  { dump: 'before-versions.sql', engines: 6, off: 1, types: 2, held: [6, 6] },
  { dump: 'job-1.sql', engines: 6, off: 1, types: 2, held: [6, 6] },
  { dump: 'job-2.sql', engines: 7, off: 1, types: 2, held: [0, 0] },
  { dump: 'job-3.sql', engines: 8, off: 1, types: 2, held: [0, 0] },
  { dump: 'job-4.sql', engines: 8, off: 1, types: 2, held: [0, 0] },
  { dump: 'job-5.sql', engines: 9, off: 1, types: 2, held: [0, 0] },
  { dump: 'job-6.sql', engines: 9, off: 1, types: 2, held: [0, 0] },
  { dump: 'job-7.sql', engines: 11, off: 0, types: 2, held: [0, 0] },
];

describe.each(DUMPS)('documents of $dump', ({ dump, engines, off, types, held }) => {
  it('are read, brought up to date, and can be worked on', async () => {
    const server = await runningServer(null, await databaseFrom(dump));
    try {
      const { body: list } = await server.call('GET', '/api/jobs');
      expect(list.jobs).toHaveLength(engines);
      expect((await server.call('GET', '/api/jobs?deleted=true')).body.jobs).toHaveLength(off);
      expect((await server.call('GET', '/api/types')).body.types).toHaveLength(types);
      for (const { id, name } of list.jobs) {
        const { body: job } = await server.call('GET', `/api/jobs/${id}`);
        expect([job.document.format, job.document.name]).toEqual([JOB_FORMAT, name]);
        const { body: history } = await server.call('GET', `/api/jobs/${id}/history?most=200`);
        expect(history.entries.at(-1).kind).toBe('created');
        const steps = [{ op: 'add', path: '/name', value: `${name} again` }];
        const patched = await server.call('PATCH', `/api/jobs/${id}`, { version: job.version, by: 'Wren', steps });
        expect([patched.status, patched.body.document.name]).toEqual([200, `${name} again`]);
      }
      const [type] = (await server.call('GET', '/api/types?words=sedge')).body.types;
      expect(type.found.length).toBeGreaterThan(0);
      const { body: drawer } = await server.call('GET', '/api/drawer');
      const count = (lines: { used: number; reservations: { count: number }[] }[]) => [
        lines.reduce((sum, { used }) => sum + used, 0),
        lines.flatMap(({ reservations }) => reservations).reduce((sum, one) => sum + one.count, 0),
      ];
      // Where halves are held: three mains of one engine are fitted, three of another reserved.
      expect(count(drawer)).toEqual(held);
    } finally {
      await server.close();
    }
  });
});

it('stretches that were kept by the names of their bolts are found by their ids', async () => {
  const server = await runningServer(null, await databaseFrom('job-5.sql'));
  try {
    const { body } = await server.call('GET', '/api/jobs/5ed9e400-0233-4000-8000-000000000005');
    const { stretch } = body.document.torque;
    expect(
      Object.fromEntries(Object.entries(stretch).map(([bolt, read]) => [bolt, (read as { nm: number }).nm])),
    ).toEqual({
      'rod/1/1': 150_000,
      'rod/1/2': 152_000,
      'main-inner/3/left/1': 141_000,
      'main-inner/3/left/2': 143_000,
    });
  } finally {
    await server.close();
  }
});
