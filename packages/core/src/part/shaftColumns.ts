import type { CrankLayout } from './crankLayout.js';
import type { Family } from './family.js';

/** What the shaft line has columns for. */
export type ShaftShow = 'mains' | 'rods' | 'both';

/** One column of the shaft line: a main, or a place for a rod on a pin. */
export interface ShaftColumn {
  /** `M1`, `P1`: the station. */
  readonly key: string;
  readonly family: Family;
  readonly number: number;
}

/** The columns from front to rear, in the order in which their stations stand along the shaft. */
export function shaftColumns(layout: CrankLayout, show: ShaftShow): ShaftColumn[] {
  const columns: ShaftColumn[] = [];
  let rod = 0;
  for (let main = 1; main <= layout.mains; main += 1) {
    if (show !== 'rods') columns.push({ key: `M${main}`, family: 'main', number: main });
    for (const pin of layout.pins.filter(({ bay }) => bay === main)) {
      for (let place = 0; place < pin.rods; place += 1) {
        rod += 1;
        if (show !== 'mains') columns.push({ key: `P${rod}`, family: 'rod', number: rod });
      }
    }
  }
  return columns;
}
