import { pino } from 'pino';
import { keepEvidence } from './history/keepEvidence.js';
import { ProgressKeeper } from './job/ProgressKeeper.js';
import { openWorkshop } from './openWorkshop.js';

/** How often it is told how far it is, ms. */
const TELL_EVERY_MS = 1000;

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set; use npm run fettle -- known rebuild');
const database = await openWorkshop(url);
const keeper = new ProgressKeeper(database, pino({ level: 'error' }), () => {}, keepEvidence);
let told = 0;
try {
  const { engines, faults } = await keeper.all((done, of) => {
    if (Date.now() - told < TELL_EVERY_MS && done < of) return;
    told = Date.now();
    process.stderr.write(`${done} of ${of} engines\n`);
  });
  process.stdout.write(`What is known was worked out again from ${engines - faults} engines.\n`);
  if (faults > 0) {
    process.stderr.write(`${faults} could not be read: the reasons are above. What they told before stays.\n`);
    process.exitCode = 1;
  }
} finally {
  await keeper.close();
  await database.destroy();
}
