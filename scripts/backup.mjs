// npm run -s fettle -- backup FILE, restore FILE: everything that Fettle keeps, pictures included, as one file of pg_dump's custom format.
import { spawnSync } from 'node:child_process';
import { chmodSync, existsSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { opened, Refusal } from './database.mjs';
import { postgresBinaries } from './postgres.mjs';
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
      `${whose} was written by a newer version of Fettle (${unknown.join(', ')}); bring this one up to date first. Nothing was changed`,
    );
  }
}

async function backup(file) {
  if (existsSync(file)) throw new Refusal(`${file} is there already; a backup never takes the place of another`);
  if (!existsSync(dirname(file))) throw new Refusal(`there is no folder ${dirname(file)}`);
  const database = await opened(false);
  try {
    const { env } = connection(database.url);
    if (migrationsOf(env).length === 0) throw new Refusal('the database holds nothing of Fettle yet');
    // Under another name until it is whole.
    const making = `${file}.making`;
    try {
      // Who is signed in at the moment is nothing to keep.
      const left = ['session', 'secret', 'invitation'].map((table) => `--exclude-table-data=${table}`);
      run('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', ...left, `--file=${making}`], env);
      // It holds everything that the workshop has written down.
      chmodSync(making, 0o600);
      renameSync(making, file);
    } finally {
      rmSync(making, { force: true });
    }
    const engines = ask('SELECT count(*) FROM "job"', env);
    const photos = ask('SELECT count(*) FROM "photo"', env);
    console.log(`Backed up ${engines} engines and ${photos} pictures to ${file}.`);
  } finally {
    await database.close();
  }
}

/** Puts a backup in the place of what is there, which stays beside it under another name. */
async function restore(file) {
  if (!existsSync(file)) throw new Refusal(`there is no file ${file}`);
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
    ask(`CREATE DATABASE "${fresh}"`, above);
    try {
      const inFresh = connection(database.url, fresh).env;
      run(
        'pg_restore',
        ['--exit-on-error', '--single-transaction', '--no-owner', '--no-privileges', `--dbname=${fresh}`, file],
        inFresh,
      );
      const migrations = migrationsOf(inFresh);
      if (migrations.length === 0) throw new Refusal(`${file} is no backup of Fettle`);
      refuseNewer('the backup', migrations);
      const engines = ask('SELECT count(*) FROM "job"', inFresh);
      ask(`ALTER DATABASE ${quoted(name)} RENAME TO "${old}"`, above);
      try {
        ask(`ALTER DATABASE "${fresh}" RENAME TO ${quoted(name)}`, above);
      } catch (error) {
        ask(`ALTER DATABASE "${old}" RENAME TO ${quoted(name)}`, above);
        throw error;
      }
      console.log(`Restored ${engines} engines from ${file}. What was there before is kept as database ${old}.`);
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
  if (!(error instanceof Refusal)) throw error;
  console.error(`fettle: ${error.message}`);
  process.exitCode = 2;
}
