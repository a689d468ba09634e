/** npm run bench, lists: what the list of the engines costs with many engines in the database against few, over HTTP in one run. */
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import { startCluster } from '../../../../scripts/postgres.mjs';
import { createApp } from '../createApp.js';
import { DEMO_GAUGE } from '../demo/demoInstruments.js';
import { loadDemo } from '../demo/loadDemo.js';
import { FitPool } from '../fit/fitPool.js';
import { keepEvidence } from '../history/keepEvidence.js';
import { ProgressKeeper } from '../job/ProgressKeeper.js';
import { openWorkshop } from '../openWorkshop.js';
import { BodyPool } from '../read/BodyPool.js';
import { PdfPool } from '../sheet/pdfPool.js';
import { fillTo } from './fillTo.js';

const FEW = 50;
const MANY = 5_000;
const LOOKS = 60;
/** Readings with one instrument. */
const MANY_READINGS = 10_000;

interface Looks {
  readonly median: number;
  readonly worst: number;
  readonly kilobytes: number;
}

async function looksAt(url: string, headers: Record<string, string> = {}): Promise<Looks> {
  const times: number[] = [];
  let bytes = 0;
  for (let at = 0; at < LOOKS; at += 1) {
    const before = performance.now();
    const answer = await fetch(url, { headers });
    bytes = (await answer.arrayBuffer()).byteLength;
    times.push(performance.now() - before);
  }
  times.sort((a, b) => a - b);
  return { median: times[LOOKS >> 1]!, worst: times.at(-1)!, kilobytes: bytes / 1000 };
}

const folder = mkdtempSync(join('/tmp', 'fettle-bench-'));
const cluster = await startCluster(folder, { durable: false });
const database = await openWorkshop(cluster.url);
const log = pino({ level: 'silent' });
const fits = new FitPool();
const reads = new BodyPool();
const { app } = await createApp({ database, fits, reads, pdfs: new PdfPool(), log, webFolder: null });
const server = app.listen(0, '127.0.0.1');
try {
  await new Promise((resolve) => server.once('listening', resolve));
  const list = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/jobs`;
  await loadDemo(database, log);
  await fillTo(database, FEW);
  const first = await looksAt(list);
  const few = await looksAt(list);
  await fillTo(database, MANY);
  await looksAt(list);
  const many = await looksAt(list);
  const found = await looksAt(`${list}?words=${encodeURIComponent('reed 4999')}`);
  const etag = (await fetch(list)).headers.get('etag')!;
  const unchanged = await looksAt(list, { 'if-none-match': etag });
  const [before] = [performance.now()];
  await Promise.all(Array.from({ length: 5 }, () => looksAt(list)));
  const five = performance.now() - before;
  const against = (looks: Looks) => (looks.median / few.median).toFixed(2);
  console.log(
    `list of the 50 engines last touched, of ${MANY.toLocaleString('en')} in the database: ${against(many)} × the time of 50 in all ` +
      `(${many.median.toFixed(1)} ms, worst ${many.worst.toFixed(1)}, ${many.kilobytes.toFixed(0)} kB; ` +
      `the first look at 50 that were never listed took ${first.worst.toFixed(0)} ms)`,
  );
  console.log(
    `the same: a search by name ${against(found)} ×, an unchanged list (304) ${against(unchanged)} ×; ` +
      `five browsers at once get ${((5 * LOOKS) / (five / 1000)).toFixed(0)} lists a second`,
  );
  const [rebuilt] = [performance.now()];
  const keeper = new ProgressKeeper(database, log, () => {}, keepEvidence);
  const { engines: all } = await keeper.all(() => {});
  const took = (performance.now() - rebuilt) / 1000;
  await keeper.close();
  await database.query('ANALYZE');
  const known = list.replace('/jobs', '/known');
  const telling = (await (await fetch(known)).json()) as { engines: number };
  const parts: string[] = [];
  const wall = '/engines?what=wall&family=main&series=Marsh&grade=Teal&half=lower';
  const asked = [
    '',
    '/offsets',
    '/marks',
    '/walls',
    '/use',
    '/use?type=Sedge%204',
    '/readers',
    '/trust',
    '/engines',
    wall,
  ];
  for (const part of asked) {
    const looks = await looksAt(`${known}${part}`);
    parts.push(
      `${part === '' ? '/scope' : part} ${looks.median.toFixed(0)} (worst ${looks.worst.toFixed(0)})`.slice(1),
    );
  }
  console.log(
    `what ${telling.engines.toLocaleString('en')} of ${all.toLocaleString('en')} engines tell, worked out anew with their progress: ${took.toFixed(0)} s (aim 120); ` +
      `its pages, ms: ${parts.join(', ')} (aim 500)`,
  );
  const due = await looksAt(list.replace('/jobs', '/due?until=2999-12-31'));
  console.log(`what is due on closed engines: ${due.median.toFixed(0)} ms, worst ${due.worst.toFixed(0)}`);
  const instruments = list.replace('/jobs', '/instruments');
  const fewRead = await looksAt(`${instruments}/${DEMO_GAUGE}/engines`);
  // Readings are never changed, but in this cluster, which is thrown away.
  await database.query('ALTER TABLE "reading" DISABLE TRIGGER USER');
  await database.query(
    `UPDATE "reading" SET "taken" = coalesce("taken", '{}') || jsonb_build_object('instrumentId', $1::text)
     WHERE "id" IN (SELECT "id" FROM "reading" WHERE "replaced_by" IS NULL AND "text" <> '' LIMIT ${MANY_READINGS})`,
    [DEMO_GAUGE],
  );
  await database.query('ANALYZE "reading"');
  const manyRead = await looksAt(`${instruments}/${DEMO_GAUGE}/engines`);
  const register = await looksAt(instruments);
  console.log(
    `engines that ${MANY_READINGS.toLocaleString('en')} readings with one instrument touched, each reading judged: ` +
      `${manyRead.median.toFixed(0)} ms, worst ${manyRead.worst.toFixed(0)}, ${(manyRead.median / fewRead.median).toFixed(1)} × the time of seven; ` +
      `the register ${register.median.toFixed(0)} ms (aim 300)`,
  );
} finally {
  server.close();
  await fits.close();
  await reads.close();
  await database.destroy();
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}
