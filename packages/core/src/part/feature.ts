import { FEATURE_ROWS, type FeatureRow } from './bearingRows.js';
import { placeOfSlot, type Slot } from './slot.js';

export { SLOTS, type Slot, slotName } from './slot.js';

import type { CrankLayout } from './crankLayout.js';
import { FAMILY_TABLE, type Family } from './family.js';

/** A kind of part that is measured. */
export type Feature = keyof typeof FEATURE_ROWS;

/** The stages in which parts are read. */
export type MeasuringStage = (typeof FEATURE_ROWS)[Feature]['stage'];

/** Every kind of part that is measured, in the order of the work. */
export const FEATURES = Object.keys(FEATURE_ROWS) as [Feature, ...Feature[]];

/** True if a reading there tells the size of a part: of a journal each does, of a bore those in the bolt direction. */
export function tellsSize(feature: Feature, slot: Slot): boolean {
  return FEATURE_TABLE[feature].role === 'journal' || placeOfSlot(slot).angle === 0;
}

/** Everything that follows from which feature it is. */
export const FEATURE_TABLE: Readonly<
  Record<Feature, FeatureRow & { readonly family: Family; readonly stage: MeasuringStage }>
> = FEATURE_ROWS;

/** A value a feature. */
export function eachFeature<Value>(of: (feature: Feature) => Value): Readonly<Record<Feature, Value>> {
  return Object.fromEntries(FEATURES.map((feature) => [feature, of(feature)])) as Record<Feature, Value>;
}

/**
 * The housing, or the journal, of a family.
 *
 * @example featureOf('rod', 'housing') // 'bigEnd'
 */
export function featureOf(family: Family, role: FeatureRow['role']): Feature {
  return FEATURES.find((feature) => FEATURE_TABLE[feature].family === family && FEATURE_TABLE[feature].role === role)!;
}

/**
 * The features of the families that are measured, in the order of the work.
 *
 * @example featuresOfFamilies(['main']) // ['mainBore', 'mainJournal']
 */
export function featuresOfFamilies(families: readonly Family[]): readonly Feature[] {
  return FEATURES.filter((feature) => families.includes(FEATURE_TABLE[feature].family));
}

/**
 * The name of a measured part.
 *
 * @param number 1 at the front; of a rod its own number
 * @example partName('bigEnd', 2) // 'R2'
 */
export function partName(feature: Feature, number: number): string {
  return `${FEATURE_TABLE[feature].prefix}${number}`;
}

/**
 * How many parts of a feature an engine has.
 *
 * @example partCount({ mains: 3, pins: [{ rods: 2 }, { rods: 2 }] }, 'bigEnd') // 4
 */
export function partCount(layout: Pick<CrankLayout, 'mains' | 'pins'>, feature: Feature): number {
  return FAMILY_TABLE[FEATURE_TABLE[feature].family].count(layout);
}
