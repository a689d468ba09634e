import type { CrankLayout } from './crankLayout.js';

/**
 * How many rods a shaft carries: one or two on each of its pins.
 *
 * @example rodCount(usualLayout(5, 8, 2, 5).layout) // 8
 */
export function rodCount(layout: Pick<CrankLayout, 'pins'>): number {
  return layout.pins.reduce((sum, pin) => sum + pin.rods, 0);
}
