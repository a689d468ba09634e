/** How a bore gauge is zeroed for the housings of an engine: once on a setting size; in each bore; or on each journal. */
export const ZEROINGS = ['setting', 'bore', 'journal'] as const;
export type Zeroing = (typeof ZEROINGS)[number];

/** Where a fitter stands: at the vise with the micrometer, at the block or the rods with the gauge, at the shaft. */
export type Stand = 'vise' | 'housing' | 'shaft';

/** One thing done without walking. */
export interface Leg {
  readonly stand: Stand;
  /** True if the gauge is set there. */
  readonly sets: boolean;
  /** Parts that are read there, from the front; empty where the gauge is only set. */
  readonly parts: readonly number[];
}

/** A way of reading the housings of one family, and what it costs. */
export interface Route {
  readonly zeroing: Zeroing;
  readonly legs: readonly Leg[];
  readonly settings: number;
  readonly walks: number;
  /** Which way Enter goes: along the shaft, a plane at a time, or down each part. */
  readonly order: 'along' | 'down';
}

function routeFrom(zeroing: Zeroing, legs: readonly Leg[], order: Route['order']): Route {
  return {
    zeroing,
    legs,
    order,
    settings: legs.filter(({ sets }) => sets).length,
    // From leg to leg, wherever the next is somewhere else.
    walks: legs.filter(({ stand }, at) => at > 0 && stand !== legs[at - 1]!.stand).length,
  };
}

/**
 * The ways of reading so many housings with one bore gauge and one micrometer, the fewest settings first, then the fewest walks: set once on a
 * setting size and read along the shaft; zeroed in each bore and the micrometer brought to it; or set on each journal, where what is read
 * is the clearance. Setting a gauge takes minutes, and vise and block stand in different rooms (common practice).
 *
 * @param count how many housings, one at least
 * @example routes(5).map(({ zeroing, settings, walks }) => [zeroing, settings, walks]) // [['setting', 1, 1], ['bore', 5, 9], ['journal', 5, 14]]
 */
export function routes(count: number): Route[] {
  const parts = Array.from({ length: count }, (_, at) => at + 1);
  const once: Leg[] = [
    { stand: 'vise', sets: true, parts: [] },
    { stand: 'housing', sets: false, parts },
  ];
  const inBore = parts.flatMap((part): Leg[] => [
    { stand: 'housing', sets: false, parts: [part] },
    { stand: 'vise', sets: true, parts: [] },
  ]);
  const onJournal = parts.flatMap((part): Leg[] => [
    { stand: 'shaft', sets: false, parts: [part] },
    { stand: 'vise', sets: true, parts: [] },
    { stand: 'housing', sets: false, parts: [part] },
  ]);
  return [
    routeFrom('setting', once, 'along'),
    routeFrom('bore', inBore, 'down'),
    routeFrom('journal', onJournal, 'down'),
  ].sort((one, other) => one.settings - other.settings || one.walks - other.walks);
}
