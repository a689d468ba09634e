import type { InstrumentRole } from '../measure/instrument.js';

interface KindRow {
  /** What it is called in a sentence. */
  readonly word: string;
  /** What it can read here: bores, journals, walls; none for what checks others, or is used without a register of its readings. */
  readonly reads: readonly InstrumentRole[];
  /** True if it has a dial whose needle may go either way. */
  readonly hasNeedle: boolean;
  /** True if it compares with a size that it was set on: its calibration is by travel, not by size. */
  readonly compares: boolean;
  /** True if it has one size, on which others are set. */
  readonly isMaster: boolean;
}

const row = (word: string, reads: readonly InstrumentRole[], rest: Partial<KindRow> = {}): KindRow => ({
  word,
  reads,
  hasNeedle: false,
  compares: false,
  isMaster: false,
  ...rest,
});

/** Kinds of instruments that a workshop registers. */
export const INSTRUMENT_KIND_TABLE = {
  outsideMicrometer: row('outside micrometer', ['micrometer']),
  boreGauge: row('bore gauge', ['boreGauge'], { hasNeedle: true, compares: true }),
  insideMicrometer: row('inside micrometer', ['boreGauge']),
  threePointMicrometer: row('three-point micrometer', ['boreGauge']),
  ballMicrometer: row('ball micrometer', ['ballMicrometer']),
  dialIndicator: row('dial indicator', [], { hasNeedle: true, compares: true }),
  feelers: row('feeler gauges', []),
  settingRing: row('setting ring', [], { isMaster: true }),
  gaugeBlock: row('gauge block', [], { isMaster: true }),
  caliper: row('caliper', []),
} as const satisfies Readonly<Record<string, KindRow>>;

export type InstrumentKind = keyof typeof INSTRUMENT_KIND_TABLE;
export const INSTRUMENT_KINDS = Object.keys(INSTRUMENT_KIND_TABLE) as [InstrumentKind, ...InstrumentKind[]];

/** Everything that follows from the kind of an instrument. */
export function instrumentKind(kind: InstrumentKind): KindRow {
  return INSTRUMENT_KIND_TABLE[kind];
}

/** Where an instrument is: only one in use reads, or is offered. */
export const INSTRUMENT_STATES = ['inUse', 'out', 'retired'] as const;
export type InstrumentState = (typeof INSTRUMENT_STATES)[number];

export const INSTRUMENT_STATE_WORDS: Readonly<Record<InstrumentState, string>> = {
  inUse: 'in use',
  out: 'out for calibration',
  retired: 'retired',
};
