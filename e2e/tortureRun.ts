/** npm run torture: killed in the middle of typing, and compared afterwards. Number of rounds and seed may be given: npm run torture -- 400 3. */
import { chmodSync, mkdtempSync } from 'node:fs';
import { torture } from './torture.js';

process.env.FETTLE_E2E_DATA = mkdtempSync('/tmp/fettle-torture-');
chmodSync(process.env.FETTLE_E2E_DATA, 0o755);
const [rounds = '400', seed = '1'] = process.argv.slice(2);
const began = Date.now();
const { figures, kills, wrong } = await torture(Number(rounds), Number(seed), (line) => console.log(line));
const killed = Object.entries(kills).map(([what, count]) => `${what} ${count}`);
console.log(
  `${figures} figures typed, killed ${killed.join(', ')} times in ${Math.round((Date.now() - began) / 1000)} s`,
);
console.log(wrong.length === 0 ? 'every figure is there, once' : wrong.join('\n'));
process.exit(wrong.length === 0 ? 0 : 1);
