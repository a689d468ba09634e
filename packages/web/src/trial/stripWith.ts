import {
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type Nanometres,
  type Strip,
  type StripEnd,
  type Unit,
} from '@fettle/core';

/** What changes of a strip: its diameter, whether it was pressed without its rings, or widths; null takes a width back. */
export type StripPart =
  | { readonly diameter: Nanometres }
  | { readonly ringsOff: boolean }
  | Partial<Record<StripEnd, Nanometres | null>>;

/** A strip of which no width was read. */
function blankStrip(diameter: Nanometres): Strip {
  return { diameter, name: '', widths: { front: null, rear: null }, by: '', at: '' };
}

/**
 * A strip with a part of it changed.
 *
 * @param before - null where none was pressed here: it begins with a diameter
 * @param usual - the diameter of the strip that was used last; a width may begin with it
 * @returns null where there is no diameter yet
 */
export function stripWith(
  before: Strip | null,
  part: StripPart,
  usual: Nanometres | null,
  unit: Unit,
  stamp: Pick<Strip, 'by' | 'at'>,
): Strip | null {
  const strip = before ?? (usual === null ? null : blankStrip(usual));
  if ('diameter' in part) return { ...(strip ?? blankStrip(part.diameter)), diameter: part.diameter, ...stamp };
  if (!strip) return null;
  if ('ringsOff' in part) return { ...strip, ringsOff: part.ringsOff, ...stamp };
  const width = (end: StripEnd) => {
    const nm = part[end];
    if (nm === undefined) return strip.widths[end];
    return nm === null ? null : { text: formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]), unit, nm };
  };
  return { ...strip, widths: { front: width('front'), rear: width('rear') }, ...stamp };
}
