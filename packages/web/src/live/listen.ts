import { LIVE_AT, type LiveEvent, TOPICS, type Topic } from '@fettle/core';
import type { Store } from '../base/store.js';
import { api } from '../wire/api.js';
import { TAB } from '../wire/credentials.js';
import { heard, listeningBegan, listeningEnded } from './liveSlice.js';

/** Pauses between tries to listen again, ms. */
const FIRST_PAUSE_MS = 1000;
const LONGEST_PAUSE_MS = 30_000;
/** What is changed within so many ms is looked up once. */
const TOGETHER_MS = 120;
/** A page out of sight listens no longer after so many ms: browsers keep few connections open to one server. */
const HIDDEN_MS = 5000;

const KINDS = ['changed', 'here', 'gone', 'missed'] as const satisfies readonly LiveEvent['kind'][];

/** Hears what others change, and has it looked up; a page that cannot hear looks now and then, as it did before. */
class Listening {
  private readonly store: Store;
  private source: EventSource | null = null;
  /** True while what reads events is on its way. */
  private fetching = false;
  private pause = FIRST_PAUSE_MS;
  private again: ReturnType<typeof setTimeout> | null = null;
  private hiding: ReturnType<typeof setTimeout> | null = null;
  private readonly changed = new Set<Topic>();
  private looking: ReturnType<typeof setTimeout> | null = null;

  constructor(store: Store) {
    this.store = store;
  }

  start(): void {
    document.addEventListener('visibilitychange', () => this.seen());
    this.store.subscribe(() => this.seen());
    addEventListener('online', () => this.seen());
    this.seen();
  }

  private get mayListen(): boolean {
    const { isOn, session } = this.store.getState().access;
    return !isOn || (session?.person != null && !session.person.mustChange && session.token !== '');
  }

  private seen(): void {
    if (!this.mayListen) {
      this.end();
      return;
    }
    if (document.visibilityState === 'visible') {
      if (this.hiding) clearTimeout(this.hiding);
      this.hiding = null;
      if (!this.source && !this.again) this.open();
    } else if (this.source) this.hiding ??= setTimeout(() => this.end(), HIDDEN_MS);
  }

  /** Opens the stream once what reads its events is here; where that cannot be fetched, it is tried again as a stream that broke is. */
  private open(): void {
    if (this.fetching) return;
    this.fetching = true;
    import('./readLiveEvent.js')
      .then(({ readLiveEvent }) => {
        this.fetching = false;
        if (!this.source && !this.again && this.mayListen && document.visibilityState === 'visible')
          this.listen(readLiveEvent);
      })
      .catch(() => {
        this.fetching = false;
        this.tryAgain();
      });
  }

  private tryAgain(): void {
    this.again = setTimeout(() => {
      this.again = null;
      this.seen();
    }, this.pause);
    this.pause = Math.min(2 * this.pause, LONGEST_PAUSE_MS);
  }

  private listen(readEvent: (told: unknown) => LiveEvent | null): void {
    const source = new EventSource(`${LIVE_AT}?tab=${TAB}`);
    this.source = source;
    source.addEventListener('open', () => {
      this.pause = FIRST_PAUSE_MS;
      this.store.dispatch(listeningBegan());
      // What was changed before it could be heard.
      this.look(TOPICS);
    });
    source.addEventListener('error', () => {
      this.end();
      // The server may have ended it because somebody may do less than before.
      if (this.store.getState().access.isOn) this.store.dispatch(api.util.invalidateTags(['session']));
      this.tryAgain();
    });
    for (const kind of KINDS) {
      source.addEventListener(kind, ({ data }) => this.hear(readEvent(JSON.parse(data as string))));
    }
  }

  private end(): void {
    if (this.hiding) clearTimeout(this.hiding);
    this.hiding = null;
    if (!this.source) return;
    this.source.close();
    this.source = null;
    this.store.dispatch(listeningEnded());
  }

  private hear(event: LiveEvent | null): void {
    if (!event) return;
    if (event.kind === 'missed') this.look(TOPICS);
    else if (event.kind !== 'changed') this.store.dispatch(heard(event));
    else if (event.tab !== TAB) {
      const isOpen = event.engine === null || event.engine === this.store.getState().undo.job;
      this.look(event.topics.filter((topic) => isOpen || (topic !== 'engine' && topic !== 'history')));
    }
  }

  private look(topics: readonly Topic[]): void {
    for (const topic of topics) if (topic !== 'session') this.changed.add(topic);
    if (this.changed.size === 0) return;
    this.looking ??= setTimeout(() => {
      this.looking = null;
      const tags = [...this.changed];
      this.changed.clear();
      this.store.dispatch(api.util.invalidateTags(tags));
    }, TOGETHER_MS);
  }
}

/** Begins to listen to what others change. */
export function startListening(store: Store): void {
  new Listening(store).start();
}
