// npm run -s fettle -- backup FILE, restore FILE: everything that Fettle keeps, pictures included, as one file.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { opened, Refusal } from './database.mjs';
import { mayUse, postgresBinaries } from './postgres.mjs';
import { root } from './root.mjs';

const MIGRATIONS = 'packages/server/src/database/migrations';

/** The migrations that this build knows, by name. */
function knownMigrations() {
  const folder = join(root, MIGRATIONS);
  return readdirSync(folder).flatMap(
    (file) => /readonly name = '(?<name>\w+)'/u.exec(readFileSync(join(folder, file), 'utf8'))?.groups.name ?? [],
  );
}

/** The parts of an address, and the environment that PostgreSQL's programs take them from. */
function connection(url, database) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    name: database ?? decodeURIComponent(pathname.slice(1)),
    env: {
      ...process.env,
      PGHOST: hostname,
      PGPORT: port || '5432',
      PGUSER: decodeURIComponent(username),
      PGPASSWORD: decodeURIComponent(password),
      PGDATABASE: database ?? decodeURIComponent(pathname.slice(1)),
    },
  };
}

function run(program, args, env) {
  const done = spawnSync(join(postgresBinaries(), program), args, { env, encoding: 'utf8', maxBuffer: 64_000_000 });
  if (done.error || done.status !== 0) {
    throw new Refusal(
      `${program} failed: ${(done.stderr || done.error?.message || '').trim().split('\n').slice(0, 3).join(' ')}`,
    );
  }
  return done.stdout.trim();
}

function ask(sql, env) {
  return run('psql', ['--no-psqlrc', '--tuples-only', '--no-align', '--set=ON_ERROR_STOP=1', '--command', sql], env);
}

/** The migrations that a database has had; none where it was never Fettle's. */
function migrationsOf(env) {
  const isThere = ask(`SELECT to_regclass('public.migrations') IS NOT NULL`, env) === 't';
  return isThere ? ask('SELECT "name" FROM "migrations" ORDER BY "id"', env).split('\n').filter(Boolean) : [];
}

function refuseNewer(whose, migrations) {
  const known = new Set(knownMigrations());
  const unknown = migrations.filter((name) => !known.has(name));
  if (unknown.length > 0) {
    throw new Refusal(
      `${whose} was written by a newer version of Fettle (${unknown.join(', ')}). Update this one first. Nothing was changed`,
    );
  }
}

/** Writes, checks or loads an archive, as the role that owns the tables. @returns what it says it did */
function archive(command, file, url) {
  const program = join(root, 'packages/server/src/backup/backupCommand.ts');
  const args = ['--conditions=@fettle/source', '--import', 'tsx', program, command, file];
  const env = { ...process.env, DATABASE_URL: url };
  const { status, stdout, stderr } = spawnSync(process.execPath, args, { cwd: root, env, encoding: 'utf8' });
  if (status !== 0) throw new Refusal(`${file}: ${(stderr || 'it ended without a word').trim()}. Nothing was changed`);
  return stdout;
}

async function backup(file) {
  if (existsSync(file)) throw new Refusal(`${file} exists. Choose another name`);
  if (!existsSync(dirname(file))) throw new Refusal(`folder ${dirname(file)} not found`);
  const database = await opened(false);
  try {
    const url = database.serverUrl();
    if (migrationsOf(connection(url).env).length === 0) throw new Refusal('the database has no Fettle data yet');
    console.log(`Backed up ${archive('write', file, url)} to ${file}.`);
  } finally {
    await database.close();
  }
}

/** The same address with another database. */
function within(url, name) {
  const other = new URL(url);
  other.pathname = `/${name}`;
  return other.href;
}

/** Puts a backup in the place of what is there, which stays beside it under another name. */
async function restore(file) {
  if (!existsSync(file)) throw new Refusal(`file ${file} not found`);
  // Before anything is started, made or changed.
  archive('check', file, 'none');
  const database = await opened(true);
  const quoted = (text) => `"${text.replaceAll('"', '""')}"`;
  try {
    const { name, env } = connection(database.url);
    const stamp = new Date().toISOString().replaceAll(/\D/gu, '').slice(0, 14);
    const [fresh, old] = [`fettle_restore_${stamp}`, `fettle_before_${stamp}`];
    const above = connection(database.url, 'template1').env;
    refuseNewer('what is there now', migrationsOf(env));
    const others = ask(
      `SELECT count(*) FROM pg_stat_activity WHERE datname = '${name.replaceAll("'", "''")}' AND pid <> pg_backend_pid()`,
      env,
    );
    if (others !== '0')
      throw new Refusal('Fettle is running on that database; stop it first (Ctrl-C where it was started)');
    const serverUrl = database.serverUrl();
    ask(`CREATE DATABASE "${fresh}"`, above);
    try {
      const owner = decodeURIComponent(new URL(serverUrl).username);
      if (serverUrl !== database.url) ask(mayUse(fresh, owner), connection(database.url, fresh).env);
      // Not the superuser: whatever stands in the file, it can do no more than the server can.
      const what = archive('load', file, within(serverUrl, fresh));
      ask(`ALTER DATABASE ${quoted(name)} RENAME TO "${old}"`, above);
      try {
        ask(`ALTER DATABASE "${fresh}" RENAME TO ${quoted(name)}`, above);
      } catch (error) {
        ask(`ALTER DATABASE "${old}" RENAME TO ${quoted(name)}`, above);
        throw error;
      }
      console.log(`Restored ${what} from ${file}. The previous data is kept as database ${old}.`);
    } catch (error) {
      ask(`DROP DATABASE IF EXISTS "${fresh}"`, above);
      throw error;
    }
  } finally {
    await database.close();
  }
}

const [what, given] = process.argv.slice(2);
const from = process.env.INIT_CWD ?? process.cwd();
try {
  await (what === 'backup' ? backup : restore)(resolve(from, given));
} catch (error) {
  const isKept = error.code === 'EACCES';
  if (!(error instanceof Refusal) && !isKept) throw error;
  console.error(`fettle: ${error.message}${isKept ? '. Run it as the user who starts Fettle' : ''}`);
  process.exitCode = 2;
}
