import type { Database } from '../database/Database.js';
import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';
import { auditCsv, auditPage } from './audit.js';

/** What was done, by whom, from where; there is nothing that changes it. */
export function auditHandlers(database: Database): HandlersOf<'listAudit' | 'auditCsv'> {
  return {
    listAudit: ({ query }) => auditPage(database, query),
    auditCsv: async ({ query }) =>
      new Reply<unknown>(200, Buffer.from(await auditCsv(database, query), 'utf8'), {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="fettle audit.csv"',
      }),
  };
}
