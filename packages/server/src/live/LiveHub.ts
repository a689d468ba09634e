import { type LiveEvent, liveEventSchema, type Presence, type Topic } from '@fettle/core';
import pg from 'pg';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { CHANNEL, rightsSchema } from '../access/rights.js';

/** What servers tell each other: what pages hear, and whose rights ended. */
const toldSchema = z.array(z.union([liveEventSchema, rightsSchema]));
type Rights = z.output<typeof rightsSchema>;

/** One page that listens. */
export interface Listener {
  /** Who listens, so that it ends with their rights; null where nobody signs in. */
  readonly who: { readonly person: string; readonly device: string | null; readonly session: string } | null;
  /** The tab that it is, by an id of its own. */
  readonly tab: string;
  readonly send: (event: LiveEvent) => void;
  /** Ends listening, from this side. */
  readonly end: () => void;
}

/** Changes within so many ms are told together: one notification, whatever was typed meanwhile. */
const TOGETHER_MS = 25;
/** Where somebody is counts for so long without being said again, ms. */
const PRESENT_MS = 60_000;
/** Pauses between tries to listen again, ms. */
const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 15_000;
/** Longer than this nothing is waited for, ms. */
const LONGEST_MS = 5000;
/** A notification holds at most 8000 bytes. */
const LARGEST = 7500;

/** Maximum tabs remembered. */
const MOST_PRESENT = 2_000;

interface Here extends Presence {
  readonly seen: number;
}

/**
 * Tells pages what others changed, and who is where, through every process on the database. What is told is never needed: a page that
 * misses it looks for itself now and then.
 */
export class LiveHub {
  private readonly database: DataSource;
  private readonly log: Logger;
  private readonly listeners = new Set<Listener>();
  private readonly here = new Map<string, Here>();
  private client: pg.Client | null = null;
  private waiting: LiveEvent[] = [];
  private timer: NodeJS.Timeout | null = null;
  private isTelling = false;
  private isClosed = false;
  private pause = FIRST_PAUSE_MS;

  constructor(database: DataSource, log: Logger) {
    this.database = database;
    this.log = log;
  }

  /** Begins to listen to the other processes; without the database it tries again, and pages hear of this process meanwhile. */
  async start(): Promise<void> {
    const { url } = this.database.options as { url: string };
    const client = new pg.Client({
      connectionString: url,
      application_name: 'fettle live',
      connectionTimeoutMillis: LONGEST_MS,
      query_timeout: LONGEST_MS,
    });
    const again = () => this.lost(client);
    this.client = client;
    client.on('error', again);
    client.on('end', again);
    client.on('notification', ({ payload }) => this.heard(payload ?? ''));
    try {
      await client.connect();
      await client.query(`LISTEN ${CHANNEL}`);
      this.pause = FIRST_PAUSE_MS;
      // What was told while nobody listened is looked up anew; who signed in is asked again who they are.
      for (const { send, end, who } of this.listeners) {
        if (who === null) send({ kind: 'missed' });
        else end();
      }
    } catch (error) {
      this.log.warn({ err: error }, 'changes of other processes are not heard at the moment');
      again();
    }
  }

  /** A connection broke, or does not answer: another is tried for. */
  private lost(client: pg.Client): void {
    if (this.client !== client) return;
    this.client = null;
    client.removeAllListeners();
    client.on('error', () => {});
    void client.end().catch(() => {});
    if (this.isClosed) return;
    setTimeout(() => !this.isClosed && void this.start(), this.pause).unref();
    this.pause = Math.min(2 * this.pause, LONGEST_PAUSE_MS);
  }

  /** Anyone who may use the database can say anything on the channel: what is none of ours is left aside. */
  private heard(payload: string): void {
    const told = toldSchema.safeParse(jsonOrNothing(payload));
    if (told.success) {
      for (const one of told.data) {
        if (one.kind === 'rights') this.endFor(one);
        else this.pass(one);
      }
    } else this.log.warn({ bytes: payload.length }, 'a notification that is not from Fettle was left aside');
  }

  /** Somebody may do less than before: what they listen with ends. A page that still may begins anew by itself. */
  private endFor({ person, device, session }: Rights): void {
    for (const { who, end } of this.listeners) {
      const isTheirs = who && (who.person === person || who.session === session || (device && who.device === device));
      if (isTheirs) end();
    }
  }

  private pass(event: LiveEvent): void {
    if (event.kind === 'here') {
      // The tab that was seen last stands last: the first is the one to forget.
      this.here.delete(event.who.tab);
      this.here.set(event.who.tab, { ...event.who, seen: Date.now() });
      if (this.here.size > MOST_PRESENT) this.here.delete(this.here.keys().next().value!);
    }
    if (event.kind === 'gone') this.here.delete(event.tab);
    for (const { send } of this.listeners) send(event);
  }

  /** A page begins to listen, and hears first who is where. @returns ends it, as often as it is called */
  join(listener: Listener): () => void {
    this.listeners.add(listener);
    const since = Date.now() - PRESENT_MS;
    for (const [tab, { seen, ...who }] of this.here) {
      if (seen < since) this.here.delete(tab);
      else listener.send({ kind: 'here', who });
    }
    return () => {
      if (!this.listeners.delete(listener)) return;
      // A page that listens anew already is not gone.
      const isBack = [...this.listeners].some(({ tab }) => tab === listener.tab);
      if (!isBack && this.here.has(listener.tab)) this.tell({ kind: 'gone', tab: listener.tab });
    };
  }

  /** Something was changed. @param engine whose it is; null where it is nobody's in particular */
  changed(topics: readonly Topic[], engine: string | null, tab: string | null): void {
    if (topics.length > 0) this.tell({ kind: 'changed', topics: [...topics], engine, tab });
  }

  /** Somebody is somewhere. */
  isHere(who: Presence): void {
    this.tell({ kind: 'here', who });
  }

  private tell(event: LiveEvent): void {
    this.waiting.push(event);
    this.soon();
  }

  /** One after another: a connection carries one query at a time, and what comes while the database is slow is told together. */
  private soon(): void {
    if (this.isTelling || this.waiting.length === 0) return;
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.isTelling = true;
      void this.flush().finally(() => {
        this.isTelling = false;
        this.soon();
      });
    }, TOGETHER_MS);
  }

  private async flush(): Promise<void> {
    const events = together(this.waiting);
    this.waiting = [];
    const { client } = this;
    for (const part of parts(events)) {
      try {
        if (client === null) throw new Error('live updates are off');
        await client.query('SELECT pg_notify($1, $2)', [CHANNEL, JSON.stringify(part)]);
      } catch {
        // The others look for themselves; those of this process hear of it all the same.
        for (const event of part) this.pass(event);
        if (client !== null) this.lost(client);
      }
    }
  }

  async close(): Promise<void> {
    this.isClosed = true;
    for (const { end } of this.listeners) end();
    if (this.timer) clearTimeout(this.timer);
    const { client } = this;
    this.client = null;
    client?.removeAllListeners();
    client?.on('error', () => {});
    await client?.end().catch(() => {});
  }
}

/** What a text says as JSON; undefined where it is none. */
function jsonOrNothing(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** The same events with those that say the same told once. */
function together(events: readonly LiveEvent[]): LiveEvent[] {
  const changed = new Map<string, LiveEvent & { kind: 'changed' }>();
  const others: LiveEvent[] = [];
  for (const event of events) {
    if (event.kind !== 'changed') {
      others.push(event);
      continue;
    }
    const key = `${event.engine} ${event.tab}`;
    const known = changed.get(key);
    changed.set(key, known ? { ...known, topics: [...new Set([...known.topics, ...event.topics])] } : event);
  }
  return [...changed.values(), ...others];
}

/** The events in lists that fit into a notification each. */
function parts(events: readonly LiveEvent[]): LiveEvent[][] {
  const lists: LiveEvent[][] = [];
  let size = LARGEST;
  for (const event of events) {
    const length = JSON.stringify(event).length * 2;
    if (size + length > LARGEST) {
      lists.push([]);
      size = 0;
    }
    lists.at(-1)!.push(event);
    size += length;
  }
  return lists;
}
