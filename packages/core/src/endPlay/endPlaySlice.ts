import { isLugged } from '../assembly/assemblyChecks.js';
import type { AssemblyMembers } from '../assembly/assemblyPart.js';
import { chanceText } from '../clearance/chanceText.js';
import type { EngineMembers } from '../engineType/enginePart.js';
import { thrustKindOf } from '../engineType/thrustKind.js';
import { lengthText } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { pieceLabel } from '../shell/piece.js';
import { settingPlaces } from '../stage/settingRow.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import { endPlayAim } from './endPlayAim.js';
import type { EndPlayMembers } from './endPlayPart.js';
import { type EndPlayRound, endPlayNow, endPlayVerdict, isReadAtBoth, predictionMissed } from './endPlayRounds.js';
import type { EndPlayReading, Moment } from './endPlaySchema.js';
import { END_PLAY_SETTINGS } from './endPlaySettings.js';
import type { PiecesMembers } from './piecesPart.js';

type EndPlayJob = EndPlayMembers &
  PiecesMembers &
  Pick<EngineMembers, 'limits' | 'sheet' | 'unit' | 'layout'> & {
    readonly rules: { readonly closeFraction: number };
    readonly assembly: AssemblyMembers['assembly'];
  };

/** What end play is judged with. */
export interface EndPlayFacts {
  readonly job: EndPlayJob;
}

const MOMENT_WORDS: Readonly<Record<Moment, string>> = {
  past: 'with other washers or shims',
  without: 'without shims',
  found: 'as found',
  seated: 'washers lined up',
  fitted: 'with the selected washers or shims',
};

/** What the moment of a reading is called. */
export function momentWord(moment: Moment): string {
  return MOMENT_WORDS[moment];
}

/** True if end play is part of this job: its data sheet has limits for it, or something was entered. */
function isAsked({ job }: EndPlayFacts): boolean {
  return job.limits.endPlay !== null || Object.keys(job.endPlay.readings).length > 0;
}

/** How the end play stands now; null where it cannot be judged. A gap without shims is no end play. */
function verdictOf({ job }: EndPlayFacts) {
  const now = endPlayNow(job.endPlay);
  const limit = job.limits.endPlay;
  if (!now || !limit || now.moment === 'without') return null;
  return { now, limit, ...endPlayVerdict(now, limit, job.rules.closeFraction) };
}

/** True if a stack is in and was read at one angle of the shaft only. */
function isHalfVerified({ job }: EndPlayFacts): boolean {
  const isStack = thrustKindOf(job) === 'rings';
  return isStack && endPlayNow(job.endPlay)?.moment === 'fitted' && !isReadAtBoth(job.endPlay);
}

function stateOf(facts: EndPlayFacts): StageState {
  const { endPlay } = facts.job;
  const now = endPlayNow(endPlay);
  if (!now) return 'open';
  const verdict = verdictOf(facts);
  if (now.isDoubtful || predictionMissed(endPlay) !== null) return 'attention';
  if (!verdict) return 'started';
  if (verdict.state === 'tight' || verdict.state === 'loose') return 'attention';
  // What was chosen has to be read with the pieces in.
  if (endPlay.choice && now.moment !== 'fitted') return 'started';
  return isHalfVerified(facts) ? 'started' : 'done';
}

/** What was read at each angle, where that is more than one: ` (0.093 mm at 0°, 0.117 mm at 180°)`. */
function anglesText({ angles }: EndPlayRound, unit: Unit): string {
  if (angles.length < 2) return '';
  return ` (${angles.map(({ angle, mean }) => `${lengthText(mean, unit)} at ${angle}°`).join(', ')})`;
}

function todosOf(facts: EndPlayFacts): Todo[] {
  if (!isAsked(facts)) return [];
  const { job } = facts;
  const { endPlay, unit } = job;
  const now = endPlayNow(endPlay);
  const inOrder = (todo: string): Todo[] => [{ urgency: 'in-order', todo }];
  const kind = thrustKindOf(job);
  if (!now) return inOrder(kind === 'rings' ? 'Read the gap of the shaft without shims' : 'Read the end play');
  if (now.isDoubtful) {
    return inOrder(`Read the end play again: its repeats are ${lengthText(now.apart, unit)} apart`);
  }
  const missed = predictionMissed(endPlay);
  if (missed !== null) {
    return inOrder(`End play is ${lengthText(Math.abs(missed), unit)} off the prediction: check it`);
  }
  if (endPlay.choice && now.moment !== 'fitted')
    return inOrder('Measure the end play with the selected washers or shims fitted');
  if (!job.limits.endPlay) return inOrder('Enter the end play limits with their source');
  if (now.moment === 'without') return inOrder('Select the rings for the end play');
  const verdict = verdictOf(facts);
  if (verdict?.state !== 'tight' && verdict?.state !== 'loose') {
    return isHalfVerified(facts) ? inOrder('Read the end play with the stack in at 0° and at 180°') : [];
  }
  const where = anglesText(verdict.now, unit);
  if (verdict.isUneven) return inOrder(`End play differs by more than its limits allow${where}: find out why`);
  return inOrder(
    `End play ${lengthText(verdict.by, unit)} too ${verdict.state === 'tight' ? 'tight' : 'loose'}${where}`,
  );
}

const VERDICT_WORDS = { inside: 'inside', close: 'close to a limit', tight: 'too tight', loose: 'too loose' } as const;

function sheetOf(facts: EndPlayFacts): SheetBlock[] {
  const { job } = facts;
  const { endPlay, unit, limits } = job;
  if (!isAsked(facts)) return [];
  const verdict = verdictOf(facts);
  const text = (length: Nanometres) => lengthText(length, unit);
  const now = endPlayNow(endPlay);
  const read = Object.entries(endPlay.readings).sort(([, one], [, other]) => (one.at < other.at ? -1 : 1));
  const row = ([key, reading]: [string, EndPlayReading]) => ({
    key,
    cells: [
      momentWord(reading.moment),
      `${reading.angle}°`,
      reading.nm === null ? reading.text : text(reading.nm),
      reading.by,
    ].map((cell) => ({ text: cell })),
  });
  return [
    {
      kind: 'fact',
      label: 'End play',
      text:
        now === null || now.moment === 'without'
          ? 'not read'
          : `${text(now.mean)}${anglesText(now, unit)}${verdict ? `, ${VERDICT_WORDS[verdict.state]}, chance ${chanceText(verdict.chance)}` : ''}`,
    },
    ...(now === null
      ? []
      : [
          {
            kind: 'fact' as const,
            label: 'Shaft walked before the dial was read',
            text: endPlay.walked ? 'yes' : 'not recorded',
          },
        ]),
    ...(limits.endPlay
      ? [{ kind: 'fact' as const, label: 'Target end play', text: text(endPlayAim(endPlay, limits.endPlay)) }]
      : []),
    ...(endPlay.choice
      ? [
          {
            kind: 'table' as const,
            key: 'end play pieces',
            part: 'result' as const,
            title: `End play: pieces fitted, predicted ${text(endPlay.choice.predicted)}`,
            head: [words('Place'), words('Piece'), figures('Thickness'), figures('Count')],
            rows: endPlay.choice.chosen.map(({ place, label, thickness, count }, at) => ({
              key: `${place} ${at}`,
              cells: [
                `${place.replace('.', ', ')}${isLugged(job.assembly.built, place) ? ', with lug' : ''}`,
                label,
                text(thickness),
                String(count),
              ].map((cell) => ({ text: cell })),
            })),
          },
        ]
      : []),
    ...(read.length > 0
      ? [
          {
            kind: 'table' as const,
            key: 'end play readings',
            part: 'result' as const,
            title: 'End play, dial readings',
            head: [words('When'), figures('Shaft at'), figures('Reading'), words('Measured by')],
            rows: read.map(row),
          },
        ]
      : []),
  ];
}

const FIELDS: Readonly<Record<string, string>> = {
  ...settingPlaces(END_PLAY_SETTINGS),
  fitted: 'thickness of what is fitted',
  walked: 'shaft pushed to and fro first',
  readings: 'end play reading',
  choice: 'accepted washers and shims',
};

/** End play: what limits it, what was read, and the washers, flanged halves or rings that bring it to its aim. */
export const endPlaySlice: Slice<'endPlay', EndPlayFacts> = {
  key: 'endPlay',
  state: stateOf,
  todos: todosOf,
  sheet: sheetOf,
  placeWords: ([member = '', key = '', field = ''], { pieces }) => {
    if (member === 'endPlay') return FIELDS[key] ?? 'end play';
    const piece = pieces[key];
    const label = piece ? pieceLabel(piece) : 'a washer or shim';
    const fields: Readonly<Record<string, string>> = { stock: 'count', thickness: 'thickness', name: 'name' };
    return fields[field] === undefined ? label : `${fields[field]} of ${label}`;
  },
};
