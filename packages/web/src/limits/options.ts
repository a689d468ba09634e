import type { JointKind, Material, Unit } from '@fettle/core';

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

/** What is read at a joint between cap and housing. */
export const JOINT_OPTIONS: readonly { value: JointKind | 'none'; label: string }[] = [
  { value: 'none', label: 'Nothing read' },
  { value: 'plain', label: 'Plain shells: crush' },
  { value: 'split-line', label: 'Shims between the shells: crush' },
  { value: 'saddle', label: 'White metal: shims under the caps' },
];
