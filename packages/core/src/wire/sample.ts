/** Engines that Fettle ships with. */
const ENGINES = [
  '4057e200-0301-4000-8000-000000000004',
  '4057e200-0302-4000-8000-000000000004',
  '4057e200-0303-4000-8000-000000000004',
  '5ed9e400-0241-4000-8000-000000000007',
  '5ed9e400-0226-4000-8000-000000000010',
  '5ed9e400-0217-4000-8000-000000000001',
  '5a3b4180-0046-4000-8000-000000000002',
  '4eed6000-0105-4000-8000-000000000003',
  '4eed6000-0112-4000-8000-000000000012',
  'b0992000-0009-4000-8000-000000000006',
  '5ed9e400-0233-4000-8000-000000000005',
] as const;

/** The third build of an engine that was built here twice before. */
export const SAMPLE_THIRD_BUILD = '5ed9e400-0101-4000-8000-000000000013';

/** Engines that were built, signed and closed: what the workshop knows is shown by them. */
export const SAMPLE_SIGNED: readonly string[] = Array.from(
  { length: 40 },
  (_, at) => `5ed9e400-${1000 + at}-4000-8000-000000000020`,
);

/** Engine types that Fettle ships with. */
const TYPES = ['5ed9e400-0000-4000-8000-0000000000a1', '4eed6000-0000-4000-8000-0000000000a2'] as const;

/** Kinds of shells and of rings in the stock that Fettle ships with. */
const STOCK = ['01', '02', '03', '04', '05', '06', 'b1', 'b2', 'b3', 'b4', 'b5'].map(
  (end) => `d4a3e400-0000-4000-8000-0000000000${end}`,
);

/** Instruments that Fettle ships with. */
const INSTRUMENTS = [1, 2, 3, 4, 5, 6, 7, 8].map((end) => `1257a100-0000-4000-8000-0000000000c${end}`);

export const SAMPLE_ENGINES: readonly string[] = [...ENGINES, SAMPLE_THIRD_BUILD, ...SAMPLE_SIGNED];
export const SAMPLE_TYPES: readonly string[] = TYPES;
export const SAMPLE_STOCK: readonly string[] = STOCK;
export const SAMPLE_INSTRUMENTS: readonly string[] = INSTRUMENTS;

const ALL: ReadonlySet<string> = new Set([...SAMPLE_ENGINES, ...TYPES, ...INSTRUMENTS, ...STOCK]);

/**
 * True if an engine, an engine type, an instrument or a line of stock came with Fettle to show how it works.
 *
 * @param id of any of them
 */
export function isSample(id: string): boolean {
  return ALL.has(id);
}
