import type { ReportPicture } from '@fettle/core';
import { In } from 'typeorm';
import { photoEntity } from '../assembly/photoEntity.js';
import type { Database } from '../database/Database.js';
import type { PaperPicture } from './reportPdf.js';

/** Pictures that a report holds at most. */
const MOST_PICTURES = 6;

/** The first pictures of a report with their bytes, in its order; one that is not on the server is left out. */
export async function picturesFor(
  { manager }: Database,
  jobId: string,
  pictures: readonly ReportPicture[],
): Promise<PaperPicture[]> {
  const wanted = pictures.slice(0, MOST_PICTURES);
  if (wanted.length === 0) return [];
  const rows = await manager.findBy(photoEntity, { jobId, id: In(wanted.map(({ photo }) => photo)) });
  const byId = new Map(rows.map((row) => [row.id, row]));
  return wanted.flatMap(({ photo, caption }) => {
    const row = byId.get(photo);
    return row ? [{ caption, type: row.type, data: new Uint8Array(row.data) }] : [];
  });
}
