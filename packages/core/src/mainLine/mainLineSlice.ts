import { lengthText, roughText } from '../measure/lengthText.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { RunoutMembers } from '../runout/runoutPart.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import type { StationFacts } from '../station/stationFacts.js';
import type { StationJob } from '../station/stationJob.js';
import { stationVerdict } from '../station/stationVerdict.js';
import type { MainLineMembers } from './mainLinePart.js';
import { bendTakes, LINE_DIRECTIONS, type LineDirection, type LineRead, lineRead, mainNames } from './mainLineRead.js';

/** What the line of the mains is judged with. */
type MainLineJob = StationJob & MainLineMembers & RunoutMembers;
export type MainLineFacts = StationFacts<MainLineJob>;

/** What each direction is called. */
export const DIRECTION_WORDS: Readonly<Record<LineDirection, string>> = { height: 'height', side: 'side' };

/** Something of the line that is over its limit. */
export interface LineOver {
  readonly direction: LineDirection;
  /** The main that is off its neighbours; null: the line as a whole. */
  readonly main: string | null;
  readonly by: Nanometres;
}

/** The line in each direction that was read. */
export function linesOf({ layout, mainLine }: Pick<MainLineJob, 'layout' | 'mainLine'>): LineRead[] {
  return LINE_DIRECTIONS.flatMap((direction) => lineRead(layout, mainLine, direction) ?? []);
}

/** What of the line is over the limits of the data sheet: the whole line by its minimum zone, each main against its neighbours. */
export function overLine(job: Pick<MainLineJob, 'layout' | 'mainLine' | 'limits'>): LineOver[] {
  const { mainLine: whole, mainNeighbours: single } = job.limits;
  return linesOf(job).flatMap(({ direction, mains, straightness }): LineOver[] => {
    const zone = Math.round(straightness.minimumZone);
    return [
      ...(whole && zone > whole.high ? [{ direction, main: null, by: nanometres(zone) }] : []),
      ...mains.flatMap(({ main, offNeighbours }): LineOver[] =>
        single && offNeighbours !== null && Math.abs(offNeighbours) > single.high
          ? [{ direction, main, by: nanometres(Math.abs(offNeighbours)) }]
          : [],
      ),
    ];
  });
}

/** What bends may take at a main, beside the clearance there. */
export interface TakenAt {
  readonly main: string;
  readonly low: Nanometres;
  readonly high: Nanometres;
  /** The clearance of the shells that are selected; null where none are, or it is not known. */
  readonly clearance: Nanometres | null;
}

/** What the bends of line and shaft may take from the clearance of each main. */
export function takenAtMains({ job, stations }: Pick<MainLineFacts, 'job' | 'stations'>): TakenAt[] {
  return bendTakes(job.layout, job.mainLine, job.runout).map(({ main, low, high }) => {
    const station = stations.find(({ id }) => id === main);
    const halves = job.choice?.stations[main] ?? null;
    const clearance = station ? (stationVerdict(job, station, halves).clearance?.nominal ?? null) : null;
    return { main, low, high, clearance };
  });
}

function stateOf({ job }: MainLineFacts): StageState {
  if (overLine(job).length > 0) return 'attention';
  const { height, side } = job.mainLine;
  const read = new Set([...Object.keys(height), ...Object.keys(side)]);
  if (read.size === 0) return 'open';
  return mainNames(job.layout).every((name) => height[name]?.nm != null) ? 'done' : 'started';
}

function todosOf({ job }: MainLineFacts): Todo[] {
  const over = overLine(job);
  const single = over.filter(({ main }) => main !== null);
  const text = (value: Nanometres) => lengthText(value, job.unit);
  const [worst] = single.sort((one, other) => other.by - one.by);
  if (worst) {
    const todo = `${worst.main} is ${text(worst.by)} off the line of its neighbours: read again, then line-bore`;
    return [{ urgency: 'blocked', todo }];
  }
  const [whole] = over;
  return whole
    ? [{ urgency: 'blocked', todo: `Mains out of line by ${text(whole.by)}: read again, then line-bore` }]
    : [];
}

function sheetOf(facts: MainLineFacts): SheetBlock[] {
  const { job } = facts;
  const lines = linesOf(job);
  if (lines.length === 0) return [];
  const text = (value: number | null) => (value === null ? '' : roughText(value, job.unit));
  const taken = new Map(takenAtMains(facts).map((one) => [one.main, one]));
  return [
    ...lines.map(
      ({ direction, mains, straightness, isEven }): SheetBlock => ({
        kind: 'table',
        key: `main line ${direction}`,
        part: 'result',
        title: `Line of the mains, ${DIRECTION_WORDS[direction]}: straight within ${text(straightness.minimumZone)} (minimum zone), ${text(straightness.leastSquares)} (least squares)${isEven ? '; mains taken as evenly spaced' : ''}`,
        head: [
          words('Main'),
          figures('Read'),
          figures('Off the line'),
          figures('Off its neighbours'),
          figures('Bends may take'),
        ],
        rows: mains.map(({ main, read, offLine, offNeighbours }) => {
          const bend = taken.get(main);
          return {
            key: main,
            cells: [
              main,
              text(read),
              text(offLine),
              text(offNeighbours),
              bend ? `${text(bend.low)} to ${text(bend.high)}` : '',
            ].map((cell) => ({ text: cell })),
          };
        }),
      }),
    ),
    ...(job.limits.mainLine || job.limits.mainNeighbours
      ? []
      : [{ kind: 'note' as const, text: 'The data sheet gives no limit for the line of the mains.' }]),
  ];
}

/** Whether the main bores lie in one line, and what their bend and the shaft's may take from the oil clearance. */
export const mainLineSlice: Slice<'mainLine', MainLineFacts> = {
  key: 'mainLine',
  // Two bores always lie in a line.
  belongs: ({ job }) => job.layout.mains > 2,
  state: stateOf,
  todos: todosOf,
  sheet: sheetOf,
  placeWords: ([, field = '', main = '']) => {
    const what =
      field === 'place'
        ? 'distance of'
        : field === 'side'
          ? 'line of the mains, side at'
          : 'line of the mains, height at';
    return main === '' ? 'line of the mains' : `${what} ${main}`;
  },
};
