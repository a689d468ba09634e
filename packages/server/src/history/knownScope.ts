import type { Read } from '@fettle/core';

/** What the engines are narrowed to that count. */
export type Scope = Read<'knownOffsets'>['query'];

/** The first five parameters of every query on evidence: what it is narrowed to. */
export function paramsOf({ type, series, person, from, to }: Scope): unknown[] {
  return [type, series, person, from ?? null, to ?? null];
}
