import type { Parcel } from './outbox.js';

/**
 * The first parcel that may go now. What rests holds back what rests upon it: everything of its engine, or, of a reading, only what corrects it.
 */
export function nextParcel(
  parcels: readonly Parcel[],
  may: (parcel: Parcel) => boolean,
  isResting: (id: string) => boolean,
): Parcel | undefined {
  const held = new Set<string>();
  const heldEngines = new Set<string>();
  for (const parcel of parcels) {
    const waitsForIt = parcel.kind === 'reading' && held.has(parcel.draft.replaces ?? '');
    if (isResting(parcel.id) || heldEngines.has(parcel.jobId) || waitsForIt) {
      held.add(parcel.id);
      if (parcel.kind !== 'reading') heldEngines.add(parcel.jobId);
    } else if (may(parcel)) return parcel;
  }
  return undefined;
}
