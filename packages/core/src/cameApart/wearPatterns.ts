/** Something to look at before an engine goes together again, because of how it came apart. */
export const LOOKS = {
  housing: 'housing bore: size, out-of-round, taper',
  journal: 'journal: size, taper, barrel, surface',
  line: 'alignment of the mains, runout of the shaft',
  rod: 'rod: straight, not twisted, big end square',
  seat: 'seat and back of the shell: dirt, burrs, old sealant',
  crush: 'crush, and torque of the fasteners',
  cap: 'cap: its number, which way round, its dowels',
  clearance: 'oil clearance against the data sheet',
  oilways: 'oilways: flushed, plugs out, oil holes in line',
  supply: 'oil supply: pump, pickup, relief valve, filter',
  oil: 'oil: water, fuel, age; how long the engine stood',
  load: 'load: detonation, overspeed, labouring',
  fillet: 'fillets of the journal against the edges of the shell',
} as const;
export type Look = keyof typeof LOOKS;

interface PatternRow {
  /** As one says it at the bench. */
  readonly name: string;
  /** What it looks like. */
  readonly seen: string;
  /** What it suggests to look at, the likeliest first. */
  readonly looks: readonly Look[];
  /** True if it needs nothing: the shell wore as it should. */
  readonly isGood?: boolean;
}

/**
 * How an old shell looks, and what that suggests to look at. Common practice, in words of our own; ISO 7146 names damage of plain bearings, and was
 * not at hand to take its terms from.
 */
const TABLE = {
  even: { name: 'Even wear', seen: 'a dull band over most of the width', looks: [], isGood: true },
  scored: { name: 'Scored', seen: 'lines around the shell', looks: ['oilways', 'journal', 'supply'] },
  embedded: { name: 'Dirt pressed in', seen: 'bright spots, each with a dark ring', looks: ['oilways', 'seat'] },
  wiped: { name: 'Wiped', seen: 'lining smeared along, shiny and dark', looks: ['clearance', 'supply', 'journal'] },
  seized: {
    name: 'Seized or turned',
    seen: 'lining torn, back polished, lug sheared',
    looks: ['housing', 'clearance', 'crush', 'supply'],
  },
  edge: { name: 'One edge worn', seen: 'wear along one edge only', looks: ['journal', 'line', 'housing'] },
  crossed: {
    name: 'Opposite edges worn',
    seen: 'front edge of one shell, rear edge of the other',
    looks: ['rod', 'line'],
  },
  fillet: { name: 'Edge rubbed by the fillet', seen: 'a bright rounded line at the very edge', looks: ['fillet'] },
  middle: { name: 'Worn in the middle', seen: 'a band around the middle, edges untouched', looks: ['journal'] },
  ends: { name: 'Worn at both edges', seen: 'both edges worn, the middle untouched', looks: ['journal', 'fillet'] },
  joint: {
    name: 'Worn near the joint',
    seen: 'wear beside the joint faces, opposite corners of upper and lower',
    looks: ['cap', 'housing', 'crush'],
  },
  spot: {
    name: 'One bright spot',
    seen: 'a spot worn through, with a mark on the back behind it',
    looks: ['seat', 'housing'],
  },
  fretted: { name: 'Fretted back', seen: 'polished or pitted back, rust-coloured dust', looks: ['crush', 'housing'] },
  cracked: {
    name: 'Cracked or flaked',
    seen: 'fine cracks, pieces of lining gone',
    looks: ['load', 'clearance', 'line'],
  },
  pitted: {
    name: 'Pitted, washed out',
    seen: 'lining eaten away beside the oil hole or groove',
    looks: ['supply', 'load', 'oil'],
  },
  corroded: { name: 'Corroded', seen: 'dark, rough, pinholes all over', looks: ['oil'] },
  hot: { name: 'Overheated', seen: 'blue or black, lining lifted', looks: ['supply', 'clearance', 'load'] },
} as const satisfies Readonly<Record<string, PatternRow>>;

export const WEAR_PATTERNS = Object.keys(TABLE) as [WearPattern, ...WearPattern[]];
export type WearPattern = keyof typeof TABLE;

/** What is known of a pattern. */
export function wearPattern(pattern: WearPattern): PatternRow {
  return TABLE[pattern];
}

/**
 * What some patterns suggest to look at, each once, in the order in which they name it.
 *
 * @example suggestedLooks(['edge', 'middle']) // ['journal', 'line', 'housing']
 */
export function suggestedLooks(patterns: readonly WearPattern[]): Look[] {
  return [...new Set(patterns.flatMap((pattern) => wearPattern(pattern).looks))];
}
