import { jobAssembly } from '../assembly/assemblyFacts.js';
import { endPlayNow } from '../endPlay/endPlayRounds.js';
import { jobFacts } from '../job/jobFacts.js';
import { columnText, lengthText, workedOutText } from '../measure/lengthText.js';
import { stationVerdict } from '../station/stationVerdict.js';
import { isPassDone, jobPassStates } from '../torque/tightenFacts.js';
import type { ReportSection, ReportTable, SignedEngine } from './reportSection.js';

/** The stations with their clearance before and now, each column with one number of decimals. */
function stationRows({ document, readings, shown }: SignedEngine) {
  const { cameApart, before, choice } = document;
  const all = jobFacts(document, readings).stations.flatMap((station) => {
    const halves = choice?.stations[station.id];
    if (!halves) return [];
    const { clearance, isMeasured, judged, state } = stationVerdict(document, station, halves);
    const old = cameApart.stations[station.id]?.clearance?.nm ?? null;
    const then = before?.fitted[station.id]?.clearance ?? null;
    return [{ station, halves, clearance, isMeasured, judged, state, old, earlier: old ?? then }];
  });
  const figure = columnText(
    all.flatMap(({ clearance, earlier }) => [clearance?.nominal ?? null, earlier]),
    shown,
  );
  return all.map(({ station, halves, clearance, isMeasured, judged, state, old, earlier }) => ({
    clearance,
    isMeasured,
    isInside: clearance === null || judged === null || state === 'blocked' ? null : judged.margin >= 0,
    cells: [
      station.id,
      `${halves.upper.label} / ${halves.lower.label}`,
      earlier === null ? '' : `${figure(earlier)}${old === null ? ' as built last' : ' as it came'}`,
      clearance === null ? 'not known' : figure(clearance.nominal),
      station.limits === null
        ? 'no limit'
        : `${workedOutText(station.limits.low, shown)} to ${workedOutText(station.limits.high, shown)}`,
      clearance === null ? '' : isMeasured ? 'measured' : 'worked out',
    ],
  }));
}

function clearanceLine(rows: ReturnType<typeof stationRows>): string {
  if (rows.length === 0) return 'No shells were selected.';
  const inside = rows.filter(({ isInside }) => isInside === true).length;
  const outside = rows.filter(({ isInside }) => isInside === false).map(({ cells }) => cells[0]);
  const unjudged = rows.filter(({ isInside }) => isInside === null).map(({ cells }) => cells[0]);
  const measured = rows.filter(({ isMeasured }) => isMeasured).length;
  const how =
    measured === rows.length
      ? 'all measured with the shells in'
      : measured === 0
        ? 'worked out from the measured parts'
        : `${measured} measured with the shells in, the others worked out from the measured parts`;
  const off = outside.length === 0 ? '' : ` Outside: ${outside.join(', ')}.`;
  const open =
    unjudged.length === 0
      ? ''
      : ` Not judged, as a limit or a size is missing or a part is out of limits: ${unjudged.join(', ')}.`;
  return `Oil clearance inside the engine maker’s limits at ${inside} of ${rows.length} bearings, ${how}.${off}${open}`;
}

/** What was fitted, with the clearances before and now. */
export function doneSection(signed: SignedEngine): ReportSection {
  const { document, readings, shown } = signed;
  const { limits, cameApart, before } = document;
  const rows = stationRows(signed);
  const now = endPlayNow(document.endPlay);
  const earlier = cameApart.endPlay?.nm ?? before?.endPlay ?? null;
  const passes = jobPassStates(document);
  const done = passes.filter(isPassDone).length;
  const { stations } = jobFacts(document, readings);
  const checks = jobAssembly(document, stations).flatMap((one) => [...one.before, ...one.after]);
  const made = checks.filter((one) => one.made !== null && !one.isOutdated).length;
  const endPlay =
    now === null
      ? []
      : [
          [
            `End play of the crankshaft: ${lengthText(Math.round(now.mean), shown)}`,
            ...(earlier === null ? [] : [`before ${lengthText(earlier, shown)}`]),
            ...(limits.endPlay
              ? [`limits ${workedOutText(limits.endPlay.low, shown)} to ${lengthText(limits.endPlay.high, shown)}`]
              : []),
          ].join(', '),
        ];
  return {
    title: 'Work done, before and after',
    lines: [
      clearanceLine(rows),
      ...endPlay,
      ...(passes.length === 0 ? [] : [`Bolts tightened: ${done} of ${passes.length} passes done.`]),
      ...(made === 0 ? [] : [`Checks during assembly: ${made} of ${checks.length} made.`]),
    ].map((text) => ({ text })),
    table:
      rows.length === 0
        ? null
        : withoutEmpty({
            head: ['Bearing', 'Shells fitted', `Clearance before, ${shown}`, `Now, ${shown}`, 'Limits', 'Basis'],
            figures: [false, false, true, true, true, false],
            rows: rows.map(({ cells }) => cells),
          }),
  };
}

/** The same table without columns in which nothing stands. */
function withoutEmpty({ head, figures, rows }: ReportTable): ReportTable {
  const isFilled = head.map((_, at) => rows.some((row) => row[at] !== ''));
  const kept = <Cell>(cells: readonly Cell[]) => cells.filter((_, at) => isFilled[at]);
  return { head: kept(head), figures: kept(figures), rows: rows.map(kept) };
}
