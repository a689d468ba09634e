import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import {
  type APIRequestContext,
  type BrowserContext,
  chromium,
  type Page,
  request as requests,
} from '@playwright/test';
import { chromiumOptions } from './chromium.js';
import { putOnBench, reedDocument } from './engines.js';
import { type OwnServer, ownServer } from './ownServer.js';

export interface Tortured {
  readonly figures: number;
  readonly kills: Readonly<Record<Victim, number>>;
  /** What the server has otherwise than it was typed. */
  readonly wrong: readonly string[];
}

/** What is killed outright, without a word beforehand. */
export const VICTIMS = ['server', 'database', 'page', 'browser'] as const;
export type Victim = (typeof VICTIMS)[number];

const MAINS = 5;
const SLOTS = ['front', 'rear'] as const;
/** After so many rounds the start command is stopped, and started anew. */
const AN_ORDERLY_STOP = 12;
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

/** The server's own process: the child of the start command that is no database. */
function serverPid(server: OwnServer): number | null {
  try {
    const children = execFileSync('pgrep', ['-P', String(server.child.pid), '-f', 'server/dist/main.js'], {
      encoding: 'utf8',
    });
    return Number(children.trim().split('\n')[0]);
  } catch {
    return null;
  }
}

/** A figure in the history of an engine. */
interface Taken {
  readonly at: string;
  readonly reading: { readonly station: number; readonly slot: string; readonly from: string; readonly to: string };
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

/**
 * Types figures at one engine while server, database, page and browser are killed in turn, and compares every figure afterwards.
 *
 * @param rounds how many times something is killed
 * @param tell told now and then how far it is
 * @param victims what is killed
 */
export async function torture(
  rounds: number,
  seed: number,
  tell: (line: string) => void,
  victims: readonly Victim[] = VICTIMS,
): Promise<Tortured> {
  const random = seeded(seed);
  const name = `torture-${seed}-${rounds}`;
  let server = await ownServer(name);
  const profile = mkdtempSync('/tmp/fettle-profile-');
  const api = await requests.newContext({ baseURL: server.origin });
  const blank = reedDocument('Reed 6 under torture', MAINS);
  const slots = { ...blank.measuring.slots, mainBore: [...SLOTS] };
  const id = await putOnBench(api, { ...blank, measuring: { ...blank.measuring, slots } });
  const address = `${server.origin}/engines/${id}/bores`;
  let context: BrowserContext;
  let page: Page;
  const openBrowser = async () => {
    context = await chromium.launchPersistentContext(profile, { ...chromiumOptions(), serviceWorkers: 'allow' });
    // The empty page that it begins with stays: a browser ends with its last one.
    page = await context.newPage();
    await page.goto(address);
  };
  const labelOf = (main: number, slot: (typeof SLOTS)[number]) => `M${main} main bore ${slot} plane, mm`;
  await openBrowser();
  // From here on it opens without the server, too.
  await page!.evaluate(async () => void (await navigator.serviceWorker.ready));
  const typed = new Map<string, string>();
  const everTyped = new Set<string>();
  const kills: Record<Victim, number> = { server: 0, database: 0, page: 0, browser: 0 };
  let figures = 0;
  const times: string[] = [];
  for (let round = 0; round < rounds; round += 1) {
    const victim = victims[round % victims.length]!;
    const before = 1 + random(3);
    for (let at = 0; at < before; at += 1) {
      const [main, slot] = [1 + random(MAINS), SLOTS[random(SLOTS.length)]!];
      const text = `64.0${String(random(190)).padStart(3, '0')}`;
      await page!.getByLabel(labelOf(main, slot), { exact: true }).focus();
      await page!.keyboard.press('ControlOrMeta+a');
      const isLast = at === before - 1;
      const typing = page!.keyboard.type(text, { delay: 15 });
      // In the middle of the last figure.
      if (isLast && victim === 'server') killOutright(serverPid(server));
      if (isLast && victim === 'database') {
        killOutright(Number(readFileSync(join(server.data, 'postgres/data/postmaster.pid'), 'utf8').split('\n')[0]));
      }
      await typing;
      await page!.keyboard.press('Enter');
      typed.set(`${main} ${slot}`, text);
      everTyped.add(`${main} ${slot} ${text}`);
      times.push(`${new Date().toISOString()} round ${round + 1}, ${victim}: M${main} ${slot} ${text}`);
      figures += 1;
    }
    if (victim === 'page') {
      // As a tab that runs out of memory: nothing of it runs any more, and nothing answers that it does not.
      const session = await context!.newCDPSession(page!);
      void session.send('Page.crash').catch(() => undefined);
      await context!.pages()[0]!.waitForTimeout(500);
      page = await context!.newPage();
      await page.goto(address);
    }
    if (victim === 'browser') {
      await page!.waitForTimeout(ON_DISK_MS);
      killOutright(pidOf(`--user-data-dir=${profile}`));
      await context!.close().catch(() => undefined);
      await openBrowser();
    }
    kills[victim] += 1;
    // Who starts it again waits longer each time; and an orderly stop belongs to it.
    if ((round + 1) % AN_ORDERLY_STOP === 0) {
      await server.stop();
      server = await ownServer(name, { FETTLE_PORT: server.port });
    }
    if ((round + 1) % 20 === 0) tell(`${round + 1} of ${rounds}: ${figures} figures typed`);
  }
  await page!.getByText(/All saved|for your word/u).waitFor({ timeout: LONGEST_MS });
  // The server may have been killed a moment ago.
  let answer = await api.get(`/api/jobs/${id}`).catch(() => null);
  for (const until = Date.now() + LONGEST_MS; !answer?.ok() && Date.now() < until; ) {
    await page!.waitForTimeout(500);
    answer = await api.get(`/api/jobs/${id}`).catch(() => null);
  }
  const { readings } = await answer!.json();
  const kept = new Map<string, string>(
    readings.map(({ station, slot, text }: { station: number; slot: string; text: string }) => [
      `${station} ${slot}`,
      text,
    ]),
  );
  const wrong = [...typed].flatMap(([place, text]) =>
    kept.get(place) === text ? [] : [`M${place}: typed ${text}, kept ${kept.get(place) ?? 'nothing'}`],
  );
  for (const place of kept.keys()) if (!typed.has(place)) wrong.push(`M${place}: kept ${kept.get(place)}, never typed`);
  // Each figure was taken once, and none that was never finished.
  const taken = await takenAt(api, id);
  for (const { station, slot, from, to } of taken.map(({ reading }) => reading)) {
    if (from === to) wrong.push(`M${station} ${slot}: ${to} was taken twice`);
    if (!everTyped.has(`${station} ${slot} ${to}`)) wrong.push(`M${station} ${slot}: ${to} was taken, never typed`);
  }
  if (wrong.length > 0) {
    // What helps to find out why.
    const read = taken.map(({ at, reading }) => `${at} ${JSON.stringify(reading)}`);
    wrong.push('The page asks:', ...(await page!.getByRole('alert').allInnerTexts()), 'Typed:', ...times);
    wrong.push('On the server, the last first:', ...read);
  }
  await context!.close();
  await api.dispose();
  await server.stop();
  rmSync(profile, { recursive: true, force: true });
  return { figures, kills, wrong };
}
