/** npm run torture: killed in the middle of typing, and compared afterwards. Number of rounds, seed and what is killed may be given: npm run torture -- 400 3 browser. */
import { chmodSync, mkdtempSync } from 'node:fs';
import { torture, VICTIMS } from './torture.js';

process.env.FETTLE_E2E_DATA = mkdtempSync('/tmp/fettle-torture-');
chmodSync(process.env.FETTLE_E2E_DATA, 0o755);
const [rounds = '400', seed = '1', only] = process.argv.slice(2);
const victims = VICTIMS.filter((victim) => only === undefined || victim === only);
if (victims.length === 0) throw new Error(`${only}: what is killed is one of ${VICTIMS.join(', ')}`);
const began = Date.now();
const { figures, kills, wrong } = await torture(Number(rounds), Number(seed), (line) => console.log(line), victims);
const killed = Object.entries(kills).map(([what, count]) => `${what} ${count}`);
console.log(
  `${figures} figures typed, killed ${killed.join(', ')} times in ${Math.round((Date.now() - began) / 1000)} s`,
);
console.log(wrong.length === 0 ? 'every figure is there, once' : wrong.join('\n'));
process.exit(wrong.length === 0 ? 0 : 1);
