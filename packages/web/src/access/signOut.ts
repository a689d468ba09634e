import { forgetAnswered } from '../wire/api.js';
import { tell } from '../wire/tell.js';

/**
 * Signs out; what was read of the workshop is forgotten on this device, what was typed and not sent is kept. The page begins anew, so that
 * nothing of it stays in its memory either.
 */
export async function signOut(): Promise<void> {
  await tell('signOut', {});
  await forgetAnswered();
  location.reload();
}
