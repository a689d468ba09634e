/** Types of postgres.mjs for the tests that use it. */
export function freePort(): Promise<number>;
export function startCluster(
  folder: string,
  options: { durable: boolean },
): Promise<{ url: string; serverUrl: () => string; stop: () => Promise<void> }>;
export function postgresBinaries(): string;
export function addressesOf(folder: string, port: number): { readonly url: string; serverUrl(): string };
