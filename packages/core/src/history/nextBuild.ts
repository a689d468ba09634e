import type { JobDocument } from '../job/jobDocument.js';
import { shellsOfSheet } from '../job/jobOfType.js';
import { newJob } from '../job/newJob.js';
import { familiesOf } from '../part/familiesOf.js';
import type { Reading } from '../part/reading.js';
import { countedByGrade } from '../shell/wallSeen.js';
import { type BuiltAs, earlierBuild } from './earlierBuild.js';

/**
 * A new build of an engine that comes back: data sheet, positions, materials, marks, rods, limits of the oil pressure and the way it is measured as in the build before; nothing
 * measured, selected, fitted or checked. It keeps what that build left, to compare with.
 *
 * @param last the build before, with its current readings
 * @param id makes an id for each of its shells
 */
export function nextBuild(
  last: JobDocument,
  readings: readonly Reading[],
  built: BuiltAs,
  name: string,
  id: () => string,
): JobDocument {
  const { unit, layout, materials, withRods, sheet, measuring, crush, endPlay } = last;
  const blank = newJob(name, unit, layout, materials, withRods);
  const shells = sheet
    ? familiesOf(last).flatMap((family) => shellsOfSheet(sheet, family, null))
    : Object.values(last.shells).map((shell) => ({ ...countedByGrade(shell), stock: null, line: null }));
  return {
    ...blank,
    serial: last.serial,
    before: earlierBuild(last, readings, built),
    origin: last.origin,
    sheet,
    limits: last.limits,
    mainLimits: last.mainLimits,
    places: last.places,
    use: last.use ?? null,
    marks: last.marks,
    depth: last.depth,
    rods: Object.fromEntries(Object.entries(last.rods).map(([number, rod]) => [number, { ...rod, pin: null }])),
    rules: last.rules,
    warm: last.warm,
    shells: Object.fromEntries(shells.map((shell) => [id(), shell])),
    measuring: { ...blank.measuring, order: measuring.order, slots: measuring.slots, setting: measuring.setting },
    crush: {
      ...blank.crush,
      kind: crush.kind,
      bigEnds: crush.bigEnds,
      aim: crush.aim,
      aimAluminium: crush.aimAluminium,
    },
    endPlay: { ...blank.endPlay, kind: endPlay.kind, halves: endPlay.halves, aim: endPlay.aim, settle: endPlay.settle },
    running: { ...blank.running, unit: last.running.unit, limits: last.running.limits },
    assembly: { ...blank.assembly, built: last.assembly.built },
  };
}
