import { LARGEST_PHOTO, type PHOTO_TYPES } from '@fettle/core';
import type { Database } from '../database/Database.js';
import { lockJob } from '../job/lockJob.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';
import { photoEntity } from './photoEntity.js';

/** What each kind of picture begins with: a file is what it says that it is, or it is not taken. */
const BEGINS: Readonly<Record<(typeof PHOTO_TYPES)[number], (data: Buffer) => boolean>> = {
  'image/jpeg': (data) => data.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff])),
  'image/png': (data) => data.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])),
  'image/webp': (data) => data.toString('latin1', 0, 4) === 'RIFF' && data.toString('latin1', 8, 12) === 'WEBP',
};

/** Pictures of findings: kept in the database, so that a backup holds them. */
export function photoHandlers(database: Database): HandlersOf<'putPhoto' | 'getPhoto'> {
  return {
    putPhoto: async ({ path: { id: jobId, photo: id }, body: { by, type, data: base64 } }) => {
      const data = Buffer.from(base64, 'base64');
      if (data.length > LARGEST_PHOTO) {
        throw invalidRequest([
          { path: '/data', message: `a photo has at most 5 MB; this one has ${data.length} bytes` },
        ]);
      }
      if (!BEGINS[type](data)) throw invalidRequest([{ path: '/data', message: `not a ${type} file` }]);
      return database.transaction(async (manager) => {
        await lockJob(manager, jobId);
        const there = await manager.findOneBy(photoEntity, { id });
        if (there && (there.jobId !== jobId || !there.data.equals(data))) {
          throw new ProblemError('id-in-use', `Photo id ${id} is already in use.`);
        }
        if (!there) await manager.insert(photoEntity, { id, jobId, type, data, by, at: new Date() });
        return new Reply(there ? 200 : 201, { id, bytes: data.length });
      });
    },
    getPhoto: async ({ path: { id: jobId, photo: id } }, { access }) => {
      const found = await database.manager.findOneBy(photoEntity, { id, jobId });
      if (!found) throw new ProblemError('not-found', `Photo ${id} of this engine not found.`);
      // A picture never changes; where one signs in each look at it is asked for all the same, and nothing keeps it.
      const kept = access.isOn ? 'no-store' : 'private, max-age=31536000, immutable';
      const headers = { 'content-type': found.type, 'cache-control': kept };
      return new Reply<unknown>(200, found.data, headers);
    },
  };
}
