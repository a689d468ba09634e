import type { DrawerMove } from '@fettle/core';
import { tell } from '../wire/tell.js';

/** Does something to the workshop's drawer, all of it or nothing. @throws an `AskFault` */
export async function moveDrawer(move: DrawerMove): Promise<void> {
  await tell('moveDrawer', { body: move });
}
