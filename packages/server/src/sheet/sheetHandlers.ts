import {
  type BuildSheet,
  buildSheet,
  comparedSheets,
  customerReport,
  type SignedSheet,
  sinceSigned,
} from '@fettle/core';
import { acting } from '../access/acting.js';
import type { Database } from '../database/Database.js';
import type { JobService } from '../job/jobService.js';
import { lockJob } from '../job/lockJob.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';
import type { PdfPool } from './pdfPool.js';
import { picturesFor } from './picturesFor.js';
import { type SignedSheetRow, sheetEntity } from './sheetEntity.js';
import { signedSheet } from './signedSheet.js';

/** How often an engine is signed at most. */
const MOST_SIGNED = 500;

/** What is told of a signed sheet beside what it says. */
const SIGNED = { jobId: true, revision: true, signedAt: true, signedBy: true, reason: true, open: true, hash: true };

function signedOf({ revision, signedAt, signedBy, reason, open, hash }: SignedSheetRow): SignedSheet {
  return { revision, signedAt: signedAt.toISOString(), signedBy, reason, open, hash };
}

/** The name of a file in a header: plain letters, and the whole name beside it. */
function disposition(name: string): string {
  const plain = name.replaceAll(/[^\w .-]/gu, '_');
  return `inline; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`;
}

function pdfReply(pdf: Buffer, name: string): Reply<unknown> {
  return new Reply<unknown>(200, pdf, { 'content-type': 'application/pdf', 'content-disposition': disposition(name) });
}

/** Build sheets: as they are now, signed and kept, and on paper. */
export function sheetHandlers(
  database: Database,
  jobs: JobService,
  pdfs: PdfPool,
): HandlersOf<'listSheets' | 'signSheet' | 'getSheet' | 'sheetPdf' | 'signedPdf' | 'reportPdf'> {
  const found = async (jobId: string, revision: number) => {
    const row = await database.manager.findOneBy(sheetEntity, { jobId, revision });
    if (row) return row;
    throw new ProblemError('not-found', `Signed build sheet ${revision} of engine ${jobId} not found.`);
  };
  const lastSigned = async (jobId: string): Promise<SignedSheetRow | null> => {
    const [row] = await database.manager.find(sheetEntity, { where: { jobId }, order: { revision: 'DESC' }, take: 1 });
    return row ?? null;
  };
  return {
    listSheets: async ({ path: { id } }) => {
      await jobs.revision(id);
      const rows = await database.manager.find(sheetEntity, {
        select: SIGNED,
        where: { jobId: id },
        order: { revision: 'DESC' },
      });
      return rows.map(signedOf);
    },
    signSheet: ({ path: { id }, body: { by, seen, revision, reason } }) =>
      database.transaction(async (manager) => {
        await lockJob(manager, id);
        const view = await jobs.get(id, manager);
        const last = (
          await manager.find(sheetEntity, {
            select: { jobId: true, revision: true },
            where: { jobId: id },
            order: { revision: 'DESC' },
            take: 1,
          })
        )[0];
        if (view.revision !== seen) {
          throw new ProblemError(
            'stale-version',
            'The engine has changed since you viewed its build sheet. Check it again, then sign.',
          );
        }
        if (revision !== (last?.revision ?? 0) + 1) {
          throw new ProblemError('stale-version', 'Already signed by someone else. Open that revision first.');
        }
        if (revision > MOST_SIGNED) {
          throw invalidRequest([{ path: '/revision', message: `an engine is signed at most ${MOST_SIGNED} times` }]);
        }
        if (last && reason === '') {
          throw invalidRequest([{ path: '/reason', message: 'enter the reason for another revision' }]);
        }
        const row = signedSheet(view, { by, at: new Date(), revision, reason, device: acting().device });
        await manager.insert(sheetEntity, row as never);
        return new Reply(201, signedOf(row));
      }),
    getSheet: async ({ path: { id, revision } }) => {
      const row = await found(id, revision);
      return { ...signedOf(row), sheet: row.sheet };
    },
    sheetPdf: async ({ path: { id }, query: how }, asker) => {
      const { document, readings, version, updatedAt, updatedBy } = await jobs.get(id);
      const made = buildSheet(document, readings, { madeAt: updatedAt, madeBy: updatedBy, version });
      const last = await lastSigned(id);
      const since = last ? [{ label: 'Signed sheet', text: sinceSigned(last, made) }] : [];
      const sheet: BuildSheet = { ...made, facts: [...made.facts, ...since] };
      return pdfReply(await pdfs.make({ sheet, signed: null, ...how }, asker), `${document.name} sheet.pdf`);
    },
    signedPdf: async ({ path: { id, revision }, query: how }, asker) => {
      const row = await found(id, revision);
      const pdf = await pdfs.make({ sheet: row.sheet, signed: signedOf(row), ...how }, asker);
      return pdfReply(pdf, `${row.sheet.engine} sheet ${revision}.pdf`);
    },
    reportPdf: async ({ path: { id, revision }, query: { names, clearances, ...how } }, asker) => {
      const row = await found(id, revision);
      const { document, readings, version, updatedAt, updatedBy } = await jobs.get(id);
      const now = buildSheet(document, readings, { madeAt: updatedAt, madeBy: updatedBy, version });
      if (comparedSheets(row.sheet, now, String).length > 0) {
        throw new ProblemError(
          'stale-version',
          `The engine is ${sinceSigned(row, now)}. Sign it as it is now; the report says what was signed.`,
        );
      }
      const signed = signedOf(row);
      const shown = clearances === 'thou' && document.unit === 'in' ? 'thou' : document.unit;
      const report = customerReport({ document, readings, signOff: signed, isNamed: names === 'yes', shown });
      const pictures = await picturesFor(database, id, report.pictures);
      const more = report.pictures.length - pictures.length;
      const pdf = await pdfs.report({ report, signed, pictures, more, ...how }, asker);
      return pdfReply(pdf, `${document.name} report.pdf`);
    },
  };
}
