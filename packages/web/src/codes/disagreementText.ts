import type { MarkDisagreement } from '@fettle/core';
import { formatExactLength, INSTRUMENT_DECIMALS, type Unit } from '@fettle/core';

const REASONS: Readonly<Record<MarkDisagreement['reasons'][number], string>> = {
  worn: 'worn',
  polished: 'polished',
  reground: 'reground',
  machined: 'machined',
  'misread-mark': 'the mark is misread',
  'swapped-part': 'another part was fitted',
};

/** How far a size is outside the band of its mark, what may be behind it, and what it would be marked today. */
export function disagreementText({ side, by, fits, reasons }: MarkDisagreement, unit: Unit): string {
  const far = `${formatExactLength(by, unit, INSTRUMENT_DECIMALS[unit])} ${unit} ${side} the band of its mark.`;
  const today = fits.length === 0 ? 'No mark covers this size.' : `It would be marked ${fits.join(' or ')} today.`;
  return `${far} Likely: ${reasons.map((reason) => REASONS[reason]).join(', ')}. ${today} The reading decides.`;
}
