import { z } from 'zod';
import type { Family } from '../part/family.js';
import { tighteningSchema } from './tightening.js';

/** Where fasteners sit: the inner and the outer bolts of main caps, bolts from the side of the block, rod bolts; anything else. */
export const FASTENER_PLACES = ['main-inner', 'main-outer', 'main-side', 'rod', 'other'] as const;
export type FastenerPlace = (typeof FASTENER_PLACES)[number];

interface PlaceRow {
  /** The stations that it belongs to; null for what holds no bearing. */
  readonly family: Family | null;
  /** What it is called in a list, and what its bolts are called where it is plain whose they are. */
  readonly name: string;
  readonly bolts: string;
}

/** The stations that each place belongs to, and what it is called. */
export const PLACE_TABLE: Readonly<Record<FastenerPlace, PlaceRow>> = {
  'main-inner': { family: 'main', name: 'main caps, inner bolts', bolts: 'inner bolts' },
  'main-outer': { family: 'main', name: 'main caps, outer bolts', bolts: 'outer bolts' },
  'main-side': { family: 'main', name: 'main caps, bolts from the side', bolts: 'bolts from the side' },
  rod: { family: 'rod', name: 'rod bolts', bolts: 'rod bolts' },
  other: { family: null, name: 'elsewhere', bolts: 'bolts elsewhere' },
};

/** The fasteners of one place of a data sheet: what they are, how many, and how they are tightened. */
export const torqueSchema = z.strictObject({
  fastener: z.string().trim().min(1, 'enter which fastener').max(60),
  steps: z.string().trim().min(1, 'enter the steps, such as 30 · 55 N·m, then 60°').max(120),
  place: z.enum(FASTENER_PLACES).default('other').describe('Where they sit.'),
  perCap: z.int('a whole number of bolts').min(1).max(4).default(2).describe('Number per cap.'),
  tightening: tighteningSchema
    .nullable()
    .default(null)
    .describe('The steps as figures; null while they are words only.'),
  lubricant: z.string().trim().max(60).default('').describe('What the figure was given for; empty when not given.'),
  source: z.string().trim().min(1, 'enter the book and page').max(200),
});
export type Torque = z.output<typeof torqueSchema>;
