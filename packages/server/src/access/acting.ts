import { AsyncLocalStorage } from 'node:async_hooks';

/** Who does what is being done, and from where. */
export interface Acting {
  /** The account's name; null where nobody has to sign in. */
  readonly person: string | null;
  /** Id of the device that was let in; null for this machine, or one that nobody let in. */
  readonly device: string | null;
}

const NOBODY: Acting = { person: null, device: null };
const under = new AsyncLocalStorage<Acting>();

/** Does something as somebody: whatever it keeps says from which device. */
export function actingAs<Result>(acting: Acting, work: () => Result): Result {
  return under.run(acting, work);
}

/** Who does what is being done now. */
export function acting(): Acting {
  return under.getStore() ?? NOBODY;
}
