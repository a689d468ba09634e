import { FAMILIES, type Family } from '@fettle/core';

/** The family that comes after one: its halves are entered next. */
export function otherFamily(family: Family): Family {
  return FAMILIES[(FAMILIES.indexOf(family) + 1) % FAMILIES.length]!;
}
