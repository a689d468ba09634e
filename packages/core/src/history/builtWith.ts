import type { JobDocument } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import type { Nanometres } from '../measure/nanometres.js';
import { familiesOf } from '../part/familiesOf.js';
import type { Family } from '../part/family.js';
import type { Reading } from '../part/reading.js';
import { stationVerdict } from '../station/stationVerdict.js';

/** The oil clearances that the stations of a family were built with. */
export interface BuiltClearances {
  readonly family: Family;
  readonly least: Nanometres;
  readonly most: Nanometres;
  /** Stations whose clearance is known. */
  readonly stations: number;
  /** Those of them that were measured with the shells in; the others are worked out from the parts. */
  readonly measured: number;
}

/** From the least to the most clearance with the halves that are accepted, by family; a family of which none is known is left out. */
export function builtClearances(job: JobDocument, readings: readonly Reading[]): BuiltClearances[] {
  const { stations } = jobFacts(job, readings);
  return familiesOf(job).flatMap((family) => {
    const known = stations.flatMap((station) => {
      const halves = station.family === family ? job.choice?.stations[station.id] : undefined;
      if (!halves) return [];
      const { clearance, isMeasured } = stationVerdict(job, station, halves);
      return clearance === null ? [] : [{ nominal: clearance.nominal, isMeasured }];
    });
    const [first] = known;
    if (!first) return [];
    const least = known.reduce((min, { nominal }) => (nominal < min ? nominal : min), first.nominal);
    const most = known.reduce((max, { nominal }) => (nominal > max ? nominal : max), first.nominal);
    const measured = known.filter(({ isMeasured }) => isMeasured).length;
    return [{ family, least, most, stations: known.length, measured }];
  });
}
