import { changesBetween, type JobDocument, type Json, slotKey, valueAt, withValueAt } from '@fettle/core';
import { asJson } from './knownEngine.js';
import { type Parcel, typedBy } from './outbox.js';

type ReadingParcel = Parcel & { kind: 'reading' };
type DocumentParcel = Parcel & { kind: 'document' };

/** True if two parcels are one person's about the same thing, so that one of them is enough. */
function isAboutTheSame(one: Parcel, other: Parcel): boolean {
  return (
    one.kind === other.kind &&
    one.jobId === other.jobId &&
    typedBy(one) === typedBy(other) &&
    (one.kind !== 'reading' || other.kind !== 'reading' || slotKey(one.draft) === slotKey(other.draft))
  );
}

/** A reading that takes the place of another one of its typist's, which the server may have all the same. */
function inPlaceOf(earlier: ReadingParcel, later: ReadingParcel): ReadingParcel {
  const took = [...(later.took ?? []), earlier.id, ...(earlier.took ?? [])];
  // It was typed over the earlier one, or over what stood there for all to see.
  const { replaces } = took.includes(later.draft.replaces ?? '') ? earlier.draft : later.draft;
  return { ...later, took, draft: { ...later.draft, replaces } };
}

/**
 * A change with what an earlier one did that it was made without knowing of: two in one moment, before the engine is shown again. Where both
 * are about one place the later one counts.
 */
function withEarlier(old: DocumentParcel, { base, ours }: DocumentParcel): JobDocument {
  const own = changesBetween(asJson(base), asJson(ours));
  const isOwn = (path: readonly string[]) =>
    own.some((other) => path.every((key, at) => at >= other.path.length || key === other.path[at]));
  return changesBetween(asJson(old.base), asJson(old.ours))
    .filter(({ path, to }) => changesBetween(valueAt(asJson(base), path), to).length > 0 && !isOwn(path))
    .reduce<Json | undefined>(
      (now, { path, to }) => withValueAt(now, path, to),
      asJson(ours),
    ) as unknown as JobDocument;
}

function joined(old: Parcel, parcel: Parcel): Parcel {
  if (old.kind === 'reading' && parcel.kind === 'reading') return inPlaceOf(old, parcel);
  if (old.kind === 'document' && parcel.kind === 'document') {
    return { ...parcel, base: old.base, ours: withEarlier(old, parcel) };
  }
  return parcel;
}

/**
 * A change joins what waits: what is not yet on its way is brought up to date instead of queued twice.
 *
 * @param sending id of the parcel that is on its way, which nothing changes any more
 */
export function withParcel(parcels: readonly Parcel[], parcel: Parcel, sending: string | null): readonly Parcel[] {
  const same = parcels.filter((other) => other.id !== sending && isAboutTheSame(other, parcel));
  const first = same[0];
  if (!first) return [...parcels, parcel];
  const one = [...same, parcel].reduce(joined);
  return parcels.flatMap((other) => (other === first ? [one] : same.includes(other) ? [] : [other]));
}

/**
 * What earlier visits left goes before what is new. Where one person has typed the same place in both, the figure that was typed last counts.
 *
 * @param sending id of the parcel of `parcels` that is on its way
 */
export function withRecalled(
  recalled: readonly Parcel[],
  parcels: readonly Parcel[],
  sending: string | null,
): readonly Parcel[] {
  const known = new Set(parcels.map(({ id }) => id));
  let result: readonly Parcel[] = [];
  for (const parcel of [...recalled.filter(({ id }) => !known.has(id)), ...parcels]) {
    const at = parcel.kind === 'reading' ? result.findLastIndex((other) => isAboutTheSame(other, parcel)) : -1;
    const other = result[at];
    if (parcel.kind !== 'reading' || other?.kind !== 'reading') {
      result = [...result, parcel];
      continue;
    }
    const isLater = parcel.draft.at >= other.draft.at;
    const [earlier, later] = isLater ? [other, parcel] : [parcel, other];
    const one = inPlaceOf(earlier, later);
    if (earlier.id === sending) {
      const after: Parcel = { ...one, draft: { ...one.draft, replaces: earlier.id } };
      result = [...result.filter((one) => one !== other), earlier, after];
    } else if (later.id === sending) {
      // What it replaces has been said already; if the earlier one was sent after all, it is corrected then.
      const sent: Parcel = { ...later, took: one.took ?? [] };
      result = result.map((one) => (one === other ? sent : one));
    } else result = result.map((before) => (before === other ? one : before));
  }
  return result;
}
