import { z } from 'zod';
import type { PartStart } from '../document/documentPart.js';
import { THRUST_KINDS, THRUST_TABLE, type ThrustKind } from '../engineType/thrustKind.js';
import { nanometresSchema, notNegativeNmSchema } from '../measure/lengthSchema.js';
import { nanometres } from '../measure/nanometres.js';
import type { SettingRow } from '../stage/settingRow.js';

/** What decides which settings of the end play an engine has. */
export interface ThrustEngine {
  /** What takes the thrust; null where nobody said. */
  readonly kind: ThrustKind | null;
  /** What its data sheet says of that. */
  readonly onSheet: ThrustKind | 'unknown';
}

/** A row of the settings of end play. */
interface EndPlayRow<Schema extends z.ZodType = z.ZodType>
  extends SettingRow<Schema, Pick<PartStart, 'unit'>, ThrustEngine> {
  /** Where it stands: with what is fitted, with what is aimed at, or folded away with what readings are judged by. */
  readonly among: 'fitted' | 'aim' | 'readings';
}

function row<Schema extends z.ZodType>(settings: EndPlayRow<Schema>): EndPlayRow<Schema> {
  return settings;
}

const FROM_SHEET = 'sheet';

/** A list of words or figures, named by its items: `upper,lower`. */
const LISTED = { by: (items: readonly unknown[]) => items.join(), value: (name: string) => name.split(',') };

const hasRings = ({ kind }: ThrustEngine) => kind === 'rings';
const hasFlanges = ({ kind }: ThrustEngine) => kind === 'flanged';
const hasWashers = ({ kind }: ThrustEngine) => kind === 'washers';

/** The settings of the end play, in the order of their form. A new one is a row here, and the arithmetic that asks for it. */
export const END_PLAY_SETTINGS = {
  kind: row({
    schema: z.enum(THRUST_KINDS).nullable().describe('Null: as on the data sheet.'),
    usual: () => null,
    place: 'kind of thrust bearing',
    among: 'fitted',
    field: {
      kind: 'one-of',
      label: 'Thrust taken by',
      options: ({ onSheet }) => [
        {
          value: FROM_SHEET,
          label: onSheet === 'unknown' ? 'Not set' : `${THRUST_TABLE[onSheet].name} (data sheet)`,
        },
        ...THRUST_KINDS.map((value) => ({ value, label: THRUST_TABLE[value].name })),
      ],
      named: {
        by: (kind: ThrustKind | null) => kind ?? FROM_SHEET,
        value: (name) => (name === FROM_SHEET ? null : name),
      },
    },
  }),
  /** Three rings before two; common practice. */
  counts: row({
    schema: z.array(z.int().min(0).max(12)).min(1).max(8).describe('Numbers of rings, best first.'),
    usual: () => [3, 2],
    place: 'numbers of rings',
    among: 'fitted',
    isOf: hasRings,
    field: {
      kind: 'one-of',
      label: 'Rings, best first',
      options: [
        { value: '3,2', label: 'Three, or two' },
        { value: '2,3', label: 'Two, or three' },
        { value: '2', label: 'Two' },
        { value: '3', label: 'Three' },
        { value: '4,3,2', label: 'Four, three or two' },
        { value: '2,1', label: 'Two, or one' },
      ],
      named: { by: LISTED.by, value: (name) => LISTED.value(name).map(Number) },
    },
  }),
  halves: row({
    schema: z.array(z.enum(['upper', 'lower'])).min(1),
    usual: (): ('upper' | 'lower')[] => ['upper', 'lower'],
    place: 'thrust washers in halves',
    among: 'fitted',
    isOf: (engine) => !hasRings(engine),
    field: {
      kind: 'one-of',
      label: 'Washers or flanges at',
      options: [
        { value: 'upper,lower', label: 'Upper and lower' },
        { value: 'upper', label: 'Upper only' },
        { value: 'lower', label: 'Lower only' },
      ],
      named: LISTED,
    },
  }),
  weight: row({
    schema: z
      .number()
      .min(0)
      .max(1000)
      .describe('Weight of end play against clearance for flanged shells; 0: only splits ties.'),
    usual: () => 0,
    place: 'weight of end play in shell selection',
    among: 'aim',
    isOf: hasFlanges,
    field: {
      kind: 'one-of',
      label: 'Weight in shell selection',
      options: [
        { value: '0', label: 'ties only' },
        { value: '0.01', label: 'a little' },
        { value: '1', label: 'as much' },
      ],
      named: { by: String, value: Number },
    },
  }),
  settle: row({
    schema: notNegativeNmSchema.describe('What the final torque squeezes out of a stack of rings.'),
    usual: () => nanometres(0),
    place: 'what a stack of rings settles',
    among: 'aim',
    isOf: hasRings,
    field: { kind: 'length', label: 'Settles at the final torque', isOptional: false },
  }),
  aim: row({
    schema: nanometresSchema.nullable().describe('Null: middle of the limits.'),
    usual: () => null,
    place: 'end play target',
    among: 'aim',
    field: { kind: 'length', label: 'Target (blank: mid-limits)', isOptional: true },
  }),
  coating: row({
    schema: z.enum(['unknown', 'none', 'coated']).describe('Whether the fitted faces are coated.'),
    usual: () => 'unknown' as const,
    place: 'coating of the thrust faces',
    among: 'aim',
    isOf: (engine) => hasWashers(engine) || hasFlanges(engine),
    field: {
      kind: 'one-of',
      label: 'Faces of the fitted washers',
      options: [
        { value: 'unknown', label: 'Not known' },
        { value: 'none', label: 'Not coated' },
        { value: 'coated', label: 'Coated' },
      ],
    },
  }),
  /** 0.025 mm or 0.001 in; common practice. */
  repeatWithin: row({
    schema: notNegativeNmSchema.describe('Repeats further apart than this point to the dial or its stand.'),
    usual: ({ unit }) => nanometres(unit === 'mm' ? 25_000 : 25_400),
    place: 'how far repeats of the end play may differ',
    among: 'readings',
    field: { kind: 'length', label: 'Repeats may differ by', isOptional: false },
  }),
  /** Half a graduation of an ordinary dial; common practice. */
  uncertainty: row({
    schema: notNegativeNmSchema.describe('Standard uncertainty of one dial reading.'),
    usual: ({ unit }) => nanometres(unit === 'mm' ? 5_000 : 6_350),
    place: 'uncertainty of the dial',
    among: 'readings',
    field: { kind: 'length', label: 'Standard uncertainty of a reading', isOptional: false },
  }),
  maxShift: row({
    schema: notNegativeNmSchema.nullable().describe('Maximum shift of the shaft; null: any.'),
    usual: () => null,
    place: 'maximum shift of the shaft',
    among: 'readings',
    isOf: hasWashers,
    field: { kind: 'length', label: 'Maximum shift of the shaft (blank: any)', isOptional: true },
  }),
  /** 0.005 mm; common practice. */
  alikeWithin: row({
    schema: notNegativeNmSchema.describe('Maximum difference between two washers of a face.'),
    usual: () => nanometres(5_000),
    place: 'maximum difference between washers of a face',
    among: 'readings',
    isOf: (engine) => !hasRings(engine),
    field: { kind: 'length', label: 'Washers of a face alike within', isOptional: false },
  }),
} as const;
