import { execFileSync, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import {
  type APIRequestContext,
  type BrowserContext,
  chromium,
  type Page,
  request as requests,
} from '@playwright/test';
import { addressesOf } from '../scripts/postgres.mjs';
import { chromiumOptions } from './chromium.js';
import { putOnBench, reedDocument } from './engines.js';
import { type OwnServer, ownServer } from './ownServer.js';

export interface Tortured {
  readonly figures: number;
  readonly kills: Readonly<Record<Victim, number>>;
  /** What the server has otherwise than it was typed. */
  readonly wrong: readonly string[];
}

/** What is killed outright, without a word beforehand: a backend is one process of the database, start the start command. A disk is full for a while. */
export const VICTIMS = ['server', 'database', 'backend', 'page', 'browser', 'start', 'disk'] as const;
export type Victim = (typeof VICTIMS)[number];

const MAINS = 5;
const SLOTS = ['front', 'rear'] as const;
type Slot = (typeof SLOTS)[number];
/** The disk of the database, MB: small, so that it can be filled. */
const DISK_MB = 800;
/** It is full for so long, ms. */
const FULL_MS = 4000;
/** After so many rounds the start command is stopped, and started anew. */
const AN_ORDERLY_STOP = 12;
/** After so many rounds everything is compared, and not only at the end. */
const A_COMPARISON = 100;
/** Everything is up again and sent within so long after the last kill, ms. */
const LONGEST_MS = 120_000;
/** What the browser writes to its disk is there after so long: a figure that is younger may go with the whole browser, but not with its page. */
const ON_DISK_MS = 1500;

/** Numbers that are the same in every run. */
function seeded(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** The process of a program on a data folder, by what stands in its command line. */
function pidOf(pattern: string): number | null {
  try {
    return Number(execFileSync('pgrep', ['-f', '-o', '--', pattern], { encoding: 'utf8' }).trim());
  } catch {
    return null;
  }
}

function killOutright(pid: number | null): void {
  if (pid === null) return;
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // It is being started again just now.
  }
}

/** The processes that another one started, by what is in their command line. */
function childrenOf(parent: number | undefined, pattern: string): readonly number[] {
  const { stdout } = spawnSync('pgrep', ['-P', String(parent), '-f', '--', pattern], { encoding: 'utf8' });
  return stdout.split('\n').filter(Boolean).map(Number);
}

/** The server's own process: the child of the start command that is no database. */
const serverPid = (server: OwnServer) => childrenOf(server.child.pid, 'server/dist/main.js')[0] ?? null;

/** A figure in the history of an engine. */
interface Taken {
  readonly at: string;
  readonly reading: { readonly station: number; readonly slot: string; readonly to: string };
}

/** Every figure that was taken at an engine, the last first. */
async function takenAt(api: APIRequestContext, id: string): Promise<readonly Taken[]> {
  const taken: Taken[] = [];
  let after: string | null = null;
  do {
    const where: string = after === null ? '' : `&after=${encodeURIComponent(after)}`;
    const page = await (await api.get(`/api/jobs/${id}/history?what=readings&most=200${where}`)).json();
    taken.push(...page.entries);
    after = page.goesOn;
  } while (after !== null);
  return taken;
}

/** The lines of PostgreSQL's pid file: process and port are the first and the fourth. */
const postmasterFile = (data: string) =>
  readFileSync(join(data, 'postgres/data/postmaster.pid'), 'utf8').split('\n').map(Number);

/** The postmaster's process; null while it is being started. */
function postmasterPid(data: string): number | null {
  try {
    return postmasterFile(data)[0] ?? null;
  } catch {
    return null;
  }
}

/**
 * A disk of its own for a data folder, in memory.
 *
 * @returns null where this user may not mount one
 */
function smallDisk(folder: string): { fill(): void; empty(): void; unmount(): void } | null {
  mkdirSync(folder, { recursive: true });
  const made = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m,mode=755`, 'tmpfs', folder]);
  if (made.status !== 0) return null;
  const filler = join(folder, 'filler');
  return {
    fill() {
      // What others write meanwhile takes the room first; then there is less to fill.
      for (let bytes = DISK_MB * 2 ** 20; bytes >= 2 ** 12; bytes = Math.floor(bytes / 2)) {
        const { status } = spawnSync('fallocate', ['-l', String(bytes), `${filler}-${bytes}`]);
        if (status !== 0) rmSync(`${filler}-${bytes}`, { force: true });
      }
    },
    empty: () => void spawnSync('sh', ['-c', `rm -f '${filler}'-*`]),
    unmount: () => void spawnSync('umount', ['-l', folder]),
  };
}

/** Starts on the port that a server which was killed may not have given back yet. */
async function startedAgain(name: string, env: Record<string, string>): Promise<OwnServer> {
  for (const until = Date.now() + LONGEST_MS; ; ) {
    try {
      return await ownServer(name, env);
    } catch (error) {
      if (Date.now() > until) throw error;
      await sleep(500);
    }
  }
}

/** Two servers on one database: one has the database, the other is told its address, which is another after each start. */
class TwoServers {
  private readonly name: string;
  private servers: readonly OwnServer[] = [];

  constructor(name: string) {
    this.name = name;
  }

  get data(): string {
    return this.servers[0]!.data;
  }

  at(which: number): OwnServer {
    return this.servers[which]!;
  }

  async start(): Promise<void> {
    const [one, two] = this.servers;
    const first = await startedAgain(this.name, one ? { FETTLE_PORT: one.port } : {});
    const url = addressesOf(join(first.data, 'postgres'), postmasterFile(first.data)[3]!).serverUrl();
    const second = await startedAgain(`${this.name}-two`, {
      DATABASE_URL: url,
      ...(two ? { FETTLE_PORT: two.port } : {}),
    });
    this.servers = [first, second];
  }

  async stop(): Promise<void> {
    for (const server of this.servers.toReversed()) await server.stop();
  }

  /** Kills a start command outright; what it started notices, or is found by the next one. */
  async killStart(which: number): Promise<void> {
    const { child } = this.at(which);
    child.removeAllListeners('exit');
    const ended = once(child, 'exit');
    killOutright(child.pid ?? null);
    await ended;
  }
}

/** A page at each of the two servers, in one browser: one types the front readings, the other the rear ones. */
class Typists {
  private readonly profile = mkdtempSync('/tmp/fettle-profile-');
  private readonly addresses: readonly string[];
  private context!: BrowserContext;
  private pages: Page[] = [];

  constructor(addresses: readonly string[]) {
    this.addresses = addresses;
  }

  async open(): Promise<void> {
    this.context = await chromium.launchPersistentContext(this.profile, {
      ...chromiumOptions(),
      serviceWorkers: 'allow',
    });
    // The empty page that it begins with stays: a browser ends with its last one.
    this.pages = await Promise.all(this.addresses.map((address) => this.newPage(address)));
  }

  private async newPage(address: string): Promise<Page> {
    const page = await this.context.newPage();
    await page.goto(address);
    return page;
  }

  /** From here on the pages open without their servers, too. */
  async canGoOffline(): Promise<void> {
    for (const page of this.pages) await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  }

  /** @param during what happens in the middle of typing */
  async type(which: number, main: number, text: string, during?: () => void): Promise<void> {
    const page = this.pages[which]!;
    await page.bringToFront();
    await page.getByLabel(`M${main} main bore ${SLOTS[which]} plane, mm`, { exact: true }).focus();
    await page.keyboard.press('ControlOrMeta+a');
    const typing = page.keyboard.type(text, { delay: 15 });
    during?.();
    await typing;
    await page.keyboard.press('Enter');
  }

  /** As a tab that runs out of memory: nothing of it runs any more, and nothing answers that it does not. */
  async crash(which: number): Promise<void> {
    const session = await this.context.newCDPSession(this.pages[which]!);
    void session.send('Page.crash').catch(() => undefined);
    await sleep(500);
    this.pages[which] = await this.newPage(this.addresses[which]!);
  }

  async killBrowser(): Promise<void> {
    await sleep(ON_DISK_MS);
    killOutright(pidOf(`--user-data-dir=${this.profile}`));
    await this.context.close().catch(() => undefined);
    await this.open();
  }

  /** Waits until everything is with the servers, or asked about. */
  async allSent(): Promise<void> {
    for (const page of this.pages) {
      await page.getByText(/All saved|needing a decision/u).waitFor({ timeout: LONGEST_MS });
    }
  }

  async asked(): Promise<readonly string[]> {
    const told = await Promise.all(this.pages.map((page) => page.getByRole('alert').allInnerTexts()));
    return told.flat();
  }

  async close(): Promise<void> {
    await this.context.close();
    rmSync(this.profile, { recursive: true, force: true });
  }
}

/** What was typed at each place, the last; and everything that ever was. */
class Typed {
  readonly last = new Map<string, string>();
  readonly times: string[] = [];
  figures = 0;
  /** How often each figure was typed at each place. */
  private readonly ever = new Map<string, number>();

  add(main: number, slot: Slot, text: string, why: string): void {
    this.last.set(`${main} ${slot}`, text);
    const figure = `${main} ${slot} ${text}`;
    this.ever.set(figure, (this.ever.get(figure) ?? 0) + 1);
    this.times.push(`${new Date().toISOString()} ${why}: M${main} ${slot} ${text}`);
    this.figures += 1;
  }

  /** What the server has otherwise: lost, taken twice, or half typed. */
  against(kept: ReadonlyMap<string, string>, taken: readonly Taken[]): string[] {
    const wrong = [...this.last].flatMap(([place, text]) =>
      kept.get(place) === text ? [] : [`M${place}: typed ${text}, kept ${kept.get(place) ?? 'nothing'}`],
    );
    for (const [place, text] of kept) {
      if (!this.last.has(place)) wrong.push(`M${place}: kept ${text}, never typed`);
    }
    // The same figure may be typed again where it stood: it is taken twice only if it is taken more often than it was typed.
    const times = new Map<string, number>();
    for (const { station, slot, to } of taken.map(({ reading }) => reading)) {
      const figure = `${station} ${slot} ${to}`;
      times.set(figure, (times.get(figure) ?? 0) + 1);
    }
    for (const [figure, count] of times) {
      const typed = this.ever.get(figure) ?? 0;
      if (count > typed) wrong.push(`M${figure}: typed ${typed} times, taken ${count}`);
    }
    return wrong;
  }
}

/** Asks until the server answers: it may have been killed a moment ago. */
async function answered(api: APIRequestContext, path: string): Promise<{ readings: readonly TypedReading[] }> {
  for (const until = Date.now() + LONGEST_MS; ; ) {
    const answer = await api.get(path).catch(() => null);
    if (answer?.ok()) return await answer.json();
    if (Date.now() > until) throw new Error(`${path}: the server does not come back`);
    await sleep(500);
  }
}

interface TypedReading {
  readonly station: number;
  readonly slot: string;
  readonly text: string;
}

/**
 * Types figures at one engine, on pages of two servers with one database, while one thing after the other is killed, and compares every figure
 * afterwards.
 *
 * @param rounds how many times something is killed
 * @param tell told now and then how far it is
 * @param victims what is killed; the disk is left out where this user may not mount one
 */
export async function torture(
  rounds: number,
  seed: number,
  tell: (line: string) => void,
  victims: readonly Victim[] = VICTIMS,
): Promise<Tortured> {
  const random = seeded(seed);
  const name = `torture-${seed}-${rounds}`;
  const folder = join(process.env.FETTLE_E2E_DATA!, name);
  const disk = victims.includes('disk') ? smallDisk(folder) : null;
  const killable = victims.filter((victim) => victim !== 'disk' || disk !== null);
  if (killable.length < victims.length) tell('This user may not mount a disk: none is filled.');
  const servers = new TwoServers(name);
  await servers.start();
  const api = await requests.newContext({ baseURL: servers.at(0).origin });
  const blank = reedDocument('Reed 6 under torture', MAINS);
  const slots = { ...blank.measuring.slots, mainBore: [...SLOTS] };
  const id = await putOnBench(api, { ...blank, measuring: { ...blank.measuring, slots } });
  const typists = new Typists([0, 1].map((which) => `${servers.at(which).origin}/engines/${id}/bores`));
  await typists.open();
  await typists.canGoOffline();
  const typed = new Typed();
  const kills = Object.fromEntries(victims.map((victim) => [victim, 0])) as Record<Victim, number>;
  const typeOne = async (why: string, during?: () => void) => {
    const which = random(SLOTS.length);
    const main = 1 + random(MAINS);
    const text = `64.0${String(random(190)).padStart(3, '0')}`;
    await typists.type(which, main, text, during);
    typed.add(main, SLOTS[which]!, text, why);
  };
  /** What is killed while a figure is being typed. */
  const inTheMiddle: Partial<Record<Victim, () => void>> = {
    server: () => killOutright(serverPid(servers.at(random(2)))),
    database: () => killOutright(postmasterPid(servers.data)),
    backend: () => {
      const backends = childrenOf(postmasterPid(servers.data) ?? 0, 'fettle_server');
      if (backends.length > 0) killOutright(backends[random(backends.length)]!);
    },
    disk: () => disk?.fill(),
  };
  /** What is killed between two figures, and what follows. */
  const between: Partial<Record<Victim, (why: string) => Promise<void>>> = {
    page: () => typists.crash(random(SLOTS.length)),
    browser: () => typists.killBrowser(),
    start: async (why) => {
      await servers.killStart(random(2));
      await typeOne(why);
      await servers.stop();
      await servers.start();
    },
    disk: async (why) => {
      const health = await api.get('/api/health').catch(() => null);
      if (health?.ok()) throw new Error('the disk was filled, and the server says that all is well');
      for (const until = Date.now() + FULL_MS; Date.now() < until; await sleep(500)) await typeOne(why);
      disk?.empty();
    },
  };
  /** Once everything is sent. @returns what is otherwise than it was typed, with what helps to find out why */
  const compare = async (): Promise<readonly string[]> => {
    await typists.allSent();
    const { readings } = await answered(api, `/api/jobs/${id}`);
    const kept = new Map(readings.map(({ station, slot, text }) => [`${station} ${slot}`, text]));
    const taken = await takenAt(api, id);
    const wrong = typed.against(kept, taken);
    if (wrong.length === 0) return wrong;
    const read = taken.map(({ at, reading }) => `${at} ${JSON.stringify(reading)}`);
    wrong.push('The pages ask:', ...(await typists.asked()), 'Typed:', ...typed.times);
    return [...wrong, 'On the server, the last first:', ...read];
  };
  for (let round = 0; round < rounds; round += 1) {
    const victim = killable[round % killable.length]!;
    const why = `round ${round + 1}, ${victim}`;
    for (let left = random(3); left > 0; left -= 1) await typeOne(why);
    await typeOne(why, inTheMiddle[victim]);
    await between[victim]?.(why);
    kills[victim] += 1;
    // The start command waits longer each time that something ends by itself; and an orderly stop belongs to it.
    if ((round + 1) % AN_ORDERLY_STOP === 0) {
      await servers.stop();
      await servers.start();
    }
    if ((round + 1) % 20 === 0) tell(`${round + 1} of ${rounds}: ${typed.figures} figures typed`);
    if ((round + 1) % A_COMPARISON === 0) {
      const soFar = await compare();
      tell(soFar.length === 0 ? 'every figure is there so far, once' : soFar.join('\n'));
    }
  }
  const wrong = await compare();
  await typists.close();
  await api.dispose();
  await servers.stop();
  disk?.unmount();
  return { figures: typed.figures, kills, wrong };
}
