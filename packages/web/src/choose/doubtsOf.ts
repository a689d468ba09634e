import {
  type AcceptedChoice,
  chanceText,
  type JobDocument,
  type JobStation,
  lengthText,
  type ShownUnit,
  stationVerdict,
} from '@fettle/core';
import { shortLabels } from '../halves/shortLabels.js';

/** A station that is inside with less than this chance is named before a choice is accepted, where the rules ask for none. */
const USUAL_LEAST = 0.95;

/** What is to be known before a choice is accepted, in sentences; empty where nothing is doubtful. */
export function doubtsOf(
  document: JobDocument,
  stations: ReadonlyMap<string, JobStation>,
  halves: AcceptedChoice['stations'],
  shown: ShownUnit,
): string[] {
  const least = document.rules.leastChance ?? USUAL_LEAST;
  const told = Object.entries(halves).flatMap(([id, pair]): string[] => {
    const station = stations.get(id);
    if (!station) return [];
    const { state, judged, inside, chance } = stationVerdict(document, station, pair);
    const known = inside ?? chance;
    const likely = known === null ? '' : `: ${chanceText(known)} inside`;
    if (state === 'may-be-tight') return [`${id} may be tight${likely}`];
    if (state === 'may-be-loose') return [`${id} may be loose${likely}`];
    if (state === 'tight' || state === 'loose') return [`${id} is ${state}`];
    if (state === 'close' && judged) {
      return [
        `${id} is close to its ${judged.side} limit, ${lengthText(judged.margin, shown)} inside${likely === '' ? '' : ` (${chanceText(known!)})`}`,
      ];
    }
    return known !== null && known < least ? [`${id} is ${chanceText(known)} inside its limits`] : [];
  });
  const taken = new Set(Object.values(halves).flatMap(({ upper, lower }) => [upper.shell, lower.shell]));
  const labels = shortLabels(Object.entries(document.shells).map(([id, half]) => ({ id, half })));
  const uncounted = [...taken].filter((id) => document.shells[id]?.stock === null && document.shells[id].line === null);
  return [
    ...told,
    ...(uncounted.length === 0 ? [] : [`not counted in stock: ${uncounted.map((id) => labels.get(id)).join(', ')}`]),
  ];
}
