import type { Fasteners } from './fasteners.js';

const KINDS = { unknown: '', maker: 'the engine maker’s', other: 'others than the engine maker’s' } as const;

/**
 * Fasteners in words; empty where nothing was said of them.
 *
 * @example fastenersWords({ kind: 'other', name: 'studs', lubricant: 'oil', torque: '80 N·m' }) // 'others than the engine maker’s, studs, oil, 80 N·m'
 */
export function fastenersWords({
  kind,
  name,
  lubricant,
  torque,
}: Pick<Fasteners, 'kind' | 'name' | 'lubricant' | 'torque'>): string {
  return [KINDS[kind], name, lubricant, torque].filter((part) => part !== '').join(', ');
}
