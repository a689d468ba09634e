import type { ThrustKind } from '../engineType/thrustKind.js';
import { nanometres } from '../measure/nanometres.js';
import type { EndPlay, EndPlayReading, Moment } from './endPlaySchema.js';

function thickest(endPlay: EndPlay, place: (place: string) => boolean) {
  const own = (endPlay.choice?.chosen ?? []).filter((one) => place(one.place));
  return own.length === 0 ? null : nanometres(Math.max(...own.map(({ thickness }) => thickness)));
}

/**
 * The end play with its choice given up. Where it was read with the chosen pieces in, those are what is fitted now, and that reading is
 * the one that others are chosen from; earlier readings are kept as of the past. A gap without shims stays what it is.
 */
export function chooseAgain(endPlay: EndPlay, kind: ThrustKind): EndPlay {
  const readings = Object.entries(endPlay.readings);
  const isRead = readings.some(([, { moment, nm }]) => moment === 'fitted' && nm !== null);
  if (!isRead || !endPlay.choice) return { ...endPlay, choice: null };
  const moved: Partial<Record<Moment, Moment>> =
    kind === 'rings' ? { fitted: 'past' } : { found: 'past', seated: 'past', fitted: 'found' };
  const { front, rear, width } = endPlay.fitted;
  return {
    ...endPlay,
    choice: null,
    fitted: {
      front: kind === 'washers' ? thickest(endPlay, (place) => place.startsWith('front')) : front,
      rear: kind === 'washers' ? thickest(endPlay, (place) => place.startsWith('rear')) : rear,
      width: kind === 'flanged' ? thickest(endPlay, () => true) : width,
    },
    readings: Object.fromEntries(
      readings.map(([id, one]): [string, EndPlayReading] => [id, { ...one, moment: moved[one.moment] ?? one.moment }]),
    ),
  };
}

/**
 * What a stack of rings was seen to settle: the gap less the rings less what is read with them in; null while that was not read.
 *
 * @param gap mean reading without shims, nm
 * @param read mean reading with the chosen stack in, nm
 */
export function settleSeen({ choice }: Pick<EndPlay, 'choice'>, gap: number | null, read: number | null) {
  if (!choice || gap === null || read === null) return null;
  const sum = choice.chosen.reduce((total, { thickness, count }) => total + count * thickness, 0);
  return nanometres(Math.round(gap - sum - read));
}
