import type { CrankLayout } from './crankLayout.js';
import { rodCount } from './rodCount.js';
import { BORE_SLOTS, JOURNAL_SLOTS, type Slot } from './slot.js';

/** One family of bearings, and everything that follows from which it is. */
export interface FamilyRow {
  /** What one of its bearings, and several, are called in a sentence; what they are called in a heading. */
  readonly word: string;
  readonly words: string;
  readonly name: string;
  /** What its caps are called in a heading. */
  readonly caps: string;
  /** Stands before the side in the name of a half, where the family has to be told: `rod `. */
  readonly halfWord: string;
  /** Heads of its columns: a station, its housing, its journal. */
  readonly heads: { readonly station: string; readonly housing: string; readonly journal: string };
  /** The limit of its oil clearance on a data sheet: its key, its name in a list, its name in a sentence. */
  readonly clearance: { readonly key: string; readonly name: string; readonly word: string };
  /** The rule that says what its clearances are aimed at. */
  readonly aim: 'aim' | 'rodAim';
  /** What the upper and the lower half sit in, as the materials of an engine name it. */
  readonly heldBy: readonly ['block' | 'rods', 'caps' | 'rods'];
  /** The member of the crush that says what is read at its joints. */
  readonly joints: 'kind' | 'bigEnds';
  /** True if an engine has it only where its rods are part of the work. */
  readonly isWithRods: boolean;
  /** True if a housing is a part of its own that can go to any journal, as a connecting rod is. */
  readonly housingsMove: boolean;
  /** True if its housings stand in the block in one line: they have places, limits of single ones, and a thrust bearing. */
  readonly isInLine: boolean;
  /** How many of its bearings an engine has. */
  readonly count: (layout: Pick<CrankLayout, 'mains' | 'pins'>) => number;
}

/** The families of bearings, in the order of the work. What differs between them stands here and nowhere else. */
export const FAMILY_ROWS = {
  main: {
    word: 'main',
    words: 'mains',
    name: 'Mains',
    caps: 'Main caps',
    halfWord: '',
    heads: { station: 'Main', housing: 'Bore', journal: 'Journal' },
    clearance: { key: 'mainClearance', name: 'Main oil clearance', word: 'oil clearance' },
    aim: 'aim',
    heldBy: ['block', 'caps'],
    joints: 'kind',
    isWithRods: false,
    housingsMove: false,
    isInLine: true,
    count: ({ mains }) => mains,
  },
  rod: {
    word: 'rod',
    words: 'rods',
    name: 'Rods',
    caps: 'Rods',
    halfWord: 'rod ',
    heads: { station: 'Crankpin, rod', housing: 'Big end', journal: 'Crankpin' },
    clearance: { key: 'rodClearance', name: 'Rod oil clearance', word: 'rod oil clearance' },
    aim: 'rodAim',
    heldBy: ['rods', 'rods'],
    joints: 'bigEnds',
    isWithRods: true,
    housingsMove: true,
    isInLine: false,
    count: rodCount,
  },
} as const satisfies Readonly<Record<string, FamilyRow>>;

/** One kind of part that is measured, and everything that follows from which it is. */
export interface FeatureRow {
  readonly family: string;
  /** A housing grows with use, a journal loses metal; in a selection table housings are the rows. */
  readonly role: 'housing' | 'journal';
  /** What a part's name begins with: `M3`, `R2`, `P2`. */
  readonly prefix: string;
  /** What one of them, and what several are called in a sentence. */
  readonly word: string;
  readonly words: string;
  /** What it is called where it stands alone, and in a list of limits. */
  readonly name: string;
  readonly limitName: string;
  /** How many slots it may be read in, and those it is read in where nobody says otherwise (common practice). */
  readonly slots: readonly Slot[];
  readonly usualSlots: readonly [Slot, ...Slot[]];
  /** True if a part carries a mark of its own, or its mark stands in a row with those of the others. */
  readonly marked: 'in-a-row' | 'each';
  /** The stage of the work in which it is read, as in the address of its page. */
  readonly stage: string;
  readonly stageName: string;
  /** True if parts are told by where they stand on the shaft, or by a number of their own. */
  readonly numbered: 'along-the-shaft' | 'by-number';
}

/**
 * What is measured: one row a feature. Words, names, slots, marks, stages, limits and counts of a feature stand here and nowhere else;
 * its key is also the key of its limits on the data sheet. In the order of the work.
 */
export const FEATURE_ROWS = {
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
