import type { Feature, Slot } from '@fettle/core';

export const FEATURE_WORDS: Readonly<Record<Feature, string>> = {
  mainBore: 'Main bore',
  mainJournal: 'Main journal',
  bigEnd: 'Big end',
  pin: 'Crankpin',
};

export const SLOT_WORDS: Readonly<Record<Slot, string>> = {
  front: 'Front plane',
  rear: 'Rear plane',
  'front-0': 'Front, 0°',
  'front-90': 'Front, 90°',
  'rear-0': 'Rear, 0°',
  'rear-90': 'Rear, 90°',
};
