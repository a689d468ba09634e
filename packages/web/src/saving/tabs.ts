/** Browsers offer locks between tabs only to pages from this machine or over TLS. */
const locks: LockManager | undefined = navigator.locks;

const nameOf = (tab: string) => `fettle-tab ${tab}`;

/** Shows the other tabs that this one is there, until it is gone. */
export async function showTab(tab: string): Promise<void> {
  if (!locks) return;
  await new Promise<void>((shown) => {
    void locks.request(nameOf(tab), () => {
      shown();
      return new Promise<never>(() => {});
    });
  });
}

/**
 * True if a tab still looks after its own, as of now. Without locks no tab is known to be: what it left may then be sent by two tabs, which
 * does no harm, for everything sent has an id and is taken once.
 */
export async function aliveTabs(): Promise<(tab: string) => boolean> {
  const held = new Set((await locks?.query())?.held?.map(({ name }) => name));
  return (tab) => held.has(nameOf(tab));
}

/** Waits until a tab is gone. */
export async function tabGone(tab: string): Promise<void> {
  await locks?.request(nameOf(tab), () => {});
}

/** Does something while no other tab does. */
export async function alone<Result>(what: 'adopting' | 'sending', work: () => Promise<Result>): Promise<Result> {
  return locks ? ((await locks.request(`fettle ${what}`, work)) as Result) : work();
}
