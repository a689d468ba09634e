// The database that Fettle uses, for what works on it beside the server.
import { existsSync, readFileSync } from 'node:fs';
import { isAbsolute, join } from 'node:path';
import { addressesOf, clusterFolder, startCluster } from './postgres.mjs';
import { root } from './root.mjs';

/** Something that the person has to put right; told without a stack. */
export class Refusal extends Error {}

/** Where the cluster lies that `npm start` uses. */
function dataFolder() {
  const data = process.env.FETTLE_DATA ?? '.fettle';
  const wanted = join(isAbsolute(data) ? data : join(root, data), 'postgres');
  return process.env.FETTLE_DATA ? wanted : clusterFolder(wanted);
}

/** The addresses of the cluster that runs on a folder; null where none does. */
function runningUrl(folder) {
  const file = join(folder, 'data', 'postmaster.pid');
  if (!existsSync(file)) return null;
  const [pid, , , port] = readFileSync(file, 'utf8').split('\n');
  if (!existsSync(`/proc/${Number(pid)}`)) return null;
  return addressesOf(folder, Number(port));
}

/** Opens the database that Fettle uses: the one that is named, the one that runs, or the one in the data folder, which is started for it. */
export async function opened(mayBeMade) {
  const { DATABASE_URL: given } = process.env;
  if (given) return { url: given, serverUrl: () => given, close: async () => {} };
  const folder = dataFolder();
  const running = runningUrl(folder);
  if (running) return Object.defineProperty(running, 'close', { value: async () => {} });
  if (!mayBeMade && !existsSync(join(folder, 'data', 'PG_VERSION'))) {
    throw new Refusal(`no Fettle data in ${folder}. Start Fettle once, or set FETTLE_DATA`);
  }
  const cluster = await startCluster(folder, { durable: true });
  return { url: cluster.url, serverUrl: cluster.serverUrl, close: cluster.stop };
}
