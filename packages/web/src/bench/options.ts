import type { Material, Unit } from '@fettle/core';

export const UNIT_OPTIONS: readonly { value: Unit; label: string }[] = [
  { value: 'mm', label: 'Millimetres' },
  { value: 'in', label: 'Inches' },
];

export const MATERIAL_OPTIONS: readonly { value: Material; label: string }[] = [
  { value: 'unknown', label: 'Not known' },
  { value: 'iron', label: 'Iron' },
  { value: 'aluminium', label: 'Aluminium' },
  { value: 'steel', label: 'Steel' },
];
