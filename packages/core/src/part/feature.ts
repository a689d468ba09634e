import type { CrankLayout } from './crankLayout.js';
import type { Family } from './family.js';
import { rodCount } from './rodCount.js';

/**
 * Where on the feature: in the front or rear plane; a journal at 0° or 90°. Bores are read in the bolt direction; across it, at 90°, only to see
 * how round they are.
 */
export const SLOTS = ['front', 'rear', 'front-0', 'front-90', 'rear-0', 'rear-90'] as const;
export type Slot = (typeof SLOTS)[number];

/** One kind of part that is measured, and everything that follows from which it is. */
interface FeatureRow {
  readonly family: Family;
  /** A housing grows with use, a journal loses metal; in a selection table housings are the rows. */
  readonly role: 'housing' | 'journal';
  /** What a part's name begins with: `M3`, `R2`, `P2`. */
  readonly prefix: 'M' | 'R' | 'P';
  /** What one of them, and what several are called in a sentence. */
  readonly word: string;
  readonly words: string;
  /** What it is called where it stands alone, and in a list of limits. */
  readonly name: string;
  readonly limitName: string;
  /** How many slots it may be read in, and those it is read in where nobody says otherwise (common practice). */
  readonly slots: readonly Slot[];
  readonly usualSlots: readonly [Slot, ...Slot[]];
  /** Whether a part carries a mark of its own, or its mark stands in a row with those of the others. */
  readonly marked: 'in-a-row' | 'each';
  /** The stage of the work in which it is read, as in the address of its page. */
  readonly stage: string;
  readonly stageName: string;
  /** Whether parts are told by where they stand on the shaft, or by a number of their own. */
  readonly numbered: 'along-the-shaft' | 'by-number';
}

const BORE_SLOTS = ['front', 'rear', 'front-90', 'rear-90'] as const;
const JOURNAL_SLOTS = ['front-0', 'front-90', 'rear-0', 'rear-90'] as const;

/**
 * What is measured: one row a feature. Words, names, slots, marks, stages, limits and counts of a feature stand here and nowhere else;
 * its key is also the key of its limits on the data sheet. In the order of the work.
 */
const TABLE = {
  mainBore: {
    family: 'main',
    role: 'housing',
    prefix: 'M',
    word: 'bore',
    words: 'bores',
    name: 'Main bore',
    limitName: 'Main housing bore',
    slots: BORE_SLOTS,
    usualSlots: ['front', 'rear'],
    marked: 'in-a-row',
    stage: 'bores',
    stageName: 'Main bores',
    numbered: 'along-the-shaft',
  },
  mainJournal: {
    family: 'main',
    role: 'journal',
    prefix: 'M',
    word: 'journal',
    words: 'journals',
    name: 'Main journal',
    limitName: 'Main journal',
    slots: JOURNAL_SLOTS,
    usualSlots: ['front-0', 'front-90'],
    marked: 'in-a-row',
    stage: 'journals',
    stageName: 'Main journals',
    numbered: 'along-the-shaft',
  },
  bigEnd: {
    family: 'rod',
    role: 'housing',
    prefix: 'R',
    word: 'big end',
    words: 'big ends',
    name: 'Big end',
    limitName: 'Big-end bore',
    slots: BORE_SLOTS,
    usualSlots: ['front', 'rear'],
    marked: 'each',
    stage: 'bigEnds',
    stageName: 'Big ends',
    numbered: 'by-number',
  },
  pin: {
    family: 'rod',
    role: 'journal',
    prefix: 'P',
    word: 'pin',
    words: 'pins',
    name: 'Crankpin',
    limitName: 'Crankpin',
    slots: JOURNAL_SLOTS,
    usualSlots: ['front-0', 'front-90'],
    marked: 'in-a-row',
    stage: 'pins',
    stageName: 'Crankpins',
    numbered: 'along-the-shaft',
  },
} as const satisfies Readonly<Record<string, FeatureRow>>;

/** A kind of part that is measured. */
export type Feature = keyof typeof TABLE;

/** The stages in which parts are read. */
export type MeasuringStage = (typeof TABLE)[Feature]['stage'];

/** Every kind of part that is measured, in the order of the work. */
export const FEATURES = Object.keys(TABLE) as [Feature, ...Feature[]];

/** Whether a reading there tells the size of a part: of a journal each does, of a bore those in the bolt direction. */
export function tellsSize(feature: Feature, slot: Slot): boolean {
  return TABLE[feature].role === 'journal' || slot === 'front' || slot === 'rear';
}

/** Everything that follows from which feature it is. */
export const FEATURE_TABLE: Readonly<Record<Feature, FeatureRow & { readonly stage: MeasuringStage }>> = TABLE;

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
  return FEATURES.find((feature) => TABLE[feature].family === family && TABLE[feature].role === role)!;
}

/**
 * The features of the families that are measured, in the order of the work.
 *
 * @example featuresOfFamilies(['main']) // ['mainBore', 'mainJournal']
 */
export function featuresOfFamilies(families: readonly Family[]): readonly Feature[] {
  return FEATURES.filter((feature) => families.includes(TABLE[feature].family));
}

/**
 * The name of a measured part.
 *
 * @param number 1 at the front; of a rod its own number
 * @example partName('bigEnd', 2) // 'R2'
 */
export function partName(feature: Feature, number: number): string {
  return `${TABLE[feature].prefix}${number}`;
}

/** How many parts of a feature an engine has. */
export function partCount(layout: Pick<CrankLayout, 'mains' | 'pins'>, feature: Feature): number {
  return TABLE[feature].family === 'main' ? layout.mains : rodCount(layout);
}

const SLOT_NAMES: Readonly<Record<Slot, string>> = {
  front: 'Front plane',
  rear: 'Rear plane',
  'front-0': 'Front, 0°',
  'front-90': 'Front, 90°',
  'rear-0': 'Rear, 0°',
  'rear-90': 'Rear, 90°',
};

/**
 * What a slot is called.
 *
 * @example slotName('front-90') // 'Front, 90°'
 */
export function slotName(slot: Slot): string {
  return SLOT_NAMES[slot];
}
