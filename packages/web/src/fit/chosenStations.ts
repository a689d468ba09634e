import {
  type AcceptedChoice,
  type CodedStation,
  codedStations,
  type JobStation,
  mainStations,
  pinnedRods,
  placedRods,
  type Reading,
  rodStations,
  type SelectionJob,
  type StationVerdict,
  stationVerdict,
} from '@fettle/core';

/** Every station of a job with some halves chosen, by its id. */
export interface ChosenStations {
  readonly stations: ReadonlyMap<string, JobStation>;
  /** What the data sheet's table calls for, where the marks are known. */
  readonly coded: ReadonlyMap<string, CodedStation>;
  readonly verdicts: ReadonlyMap<string, StationVerdict>;
}

/** What is known of every station with the halves that are chosen; pins carry the rods that the choice, or the fitter, puts there. */
export function chosenStations(
  document: SelectionJob,
  readings: readonly Reading[],
  halves: AcceptedChoice['stations'],
): ChosenStations {
  const placed = { ...pinnedRods(document), ...placedRods(halves) };
  const all = [...mainStations(document, readings), ...rodStations(document, readings, placed)];
  const stations = new Map(all.map((station) => [station.id, station]));
  return {
    stations,
    coded: codedStations(document, placed),
    verdicts: new Map(
      all.map((station) => [station.id, stationVerdict(document, station, halves[station.id] ?? null)]),
    ),
  };
}
