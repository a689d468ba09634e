import type { Family, SelectionCodes, Unit } from '@fettle/core';
import type { TypeFaults } from './readType.js';
import type { FamilyText } from './typeText.js';

/** What the panels of a family's codes work on. */
export interface FamilyProps {
  readonly family: Family;
  readonly text: FamilyText;
  readonly unit: Unit;
  readonly faults: TypeFaults;
  readonly codes: SelectionCodes | null;
  /** The side that an engine of these materials gives the thinner half of a mixed pair. */
  readonly thinner: 'either' | 'upper' | 'lower';
  readonly set: (part: Partial<FamilyText>) => void;
}
