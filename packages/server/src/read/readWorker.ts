import { type EndpointName, endpointOf } from '@fettle/core';
import { type ParsedBody, readBytes } from '../worker/readBytes.js';
import { byAccount } from './byAccount.js';
import { type JudgedPatch, judgePatch, type PatchTask } from './judgePatch.js';

export interface BodyTask {
  readonly endpoint: EndpointName;
  /** The body as it came. */
  readonly body: Uint8Array;
  /** Name of the account that sends it; null where the body says who. */
  readonly who: string | null;
}

/** Runs in a worker thread: reads and checks a large body. */
export default function read({ endpoint, body, who }: BodyTask): ParsedBody<unknown> {
  return readBytes(body, endpointOf(endpoint).body, (sent) => byAccount(sent, who));
}

/** Applies a change to a large document there. */
export function patch(task: PatchTask): JudgedPatch {
  return judgePatch(task);
}
