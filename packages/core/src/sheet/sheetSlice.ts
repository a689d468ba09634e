import type { AssemblyMembers } from '../assembly/assemblyPart.js';
import type { EndPlayMembers } from '../endPlay/endPlayPart.js';
import type { EngineMembers } from '../engineType/enginePart.js';
import type { MeasuringFacts } from '../reading/measuringFacts.js';
import type { RunoutMembers } from '../runout/runoutPart.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice } from '../stage/slice.js';
import type { TorqueMembers } from '../torque/torquePart.js';
import type { SheetMembers } from './sheetPart.js';

type PrintedJob = SheetMembers &
  TorqueMembers &
  EndPlayMembers &
  RunoutMembers &
  AssemblyMembers &
  Pick<EngineMembers, 'withRods'> & { readonly choice: AcceptedChoice | null };

/** What the sheet ends with is told from. */
export interface SheetFacts extends Pick<MeasuringFacts, 'readings' | 'features' | 'parts'> {
  readonly job: PrintedJob;
}

/** True if the sheet was printed with the choice that is accepted now. */
function isPrinted({ printed, choice }: PrintedJob): boolean {
  return printed !== null && (choice === null || printed.at >= choice.at);
}

/** What is done by hand and written down by hand: lines to fill in. */
function byHand({ endPlay, runout, withRods, assembly, torque }: PrintedJob): SheetBlock[] {
  const isChecked = Object.keys(assembly.checks).length > 0;
  const isTightened = Object.keys(torque.passes).length > 0;
  const checks = [
    ...(isChecked ? [] : ['Backs and seats dry and clean, oil holes in line, lugs in their notches']),
    ...(isTightened ? [] : ['Mains torqued in steps from the middle out']),
    ...(Object.keys(assembly.turns).length > 0 ? [] : ['Turns freely and evenly after each cap']),
    ...(withRods && !isTightened ? ['Rods torqued, free to move sideways'] : []),
    ...(Object.keys(endPlay.readings).length === 0 ? ['End play'] : []),
    ...(Object.keys(runout.mains).length === 0 ? ['Runout on the outer mains'] : []),
    ...(isChecked ? [] : ['Bolts marked']),
  ];
  if (checks.length === 0) return [];
  return [
    {
      kind: 'table',
      key: 'by hand',
      part: 'reference',
      title: 'By hand',
      head: [words('Done'), words('Problem'), words('By'), words('Date')],
      rows: checks.map((check) => ({ key: check, cells: [check, '', '', ''].map((text) => ({ text })) })),
    },
  ];
}

/** The sheet that stays with the engine: it is where the work ends. */
export const sheetSlice: Slice<'sheet', SheetFacts> = {
  key: 'sheet',
  state: ({ job }) => (isPrinted(job) ? 'done' : 'open'),
  todos: ({ job }) =>
    isPrinted(job) ? [] : [{ urgency: 'in-order', todo: 'Print the build sheet and store it with the engine' }],
  sheet: ({ job, readings, parts, features }) => {
    const people = [...new Set(readings.filter(({ nm }) => nm !== null).map(({ by }) => by))].join(', ');
    const isByMarks = features.some((feature) => parts[feature].some(({ size }) => size?.kind === 'marked'));
    return [
      { kind: 'fact', label: 'Measured by', text: people || 'no readings yet' },
      ...(isByMarks
        ? [
            {
              kind: 'note' as const,
              text: 'A mark in place of a size: the part was not measured, and the middle of the mark’s band is used.',
            },
          ]
        : []),
      ...byHand(job),
      {
        kind: 'note',
        text: "The figures are an aid: the engine maker's current data, local rules and licensed practice decide. Certified work (aircraft, marine class, pressure) is for licensed people. Lift the crank with help; keep fingers clear when it turns.",
      },
    ];
  },
  placeWords: ([member = '', key = '']) => {
    if (member !== 'report') return 'the sheet';
    return key === 'refused' ? 'customer’s report: what was refused' : 'customer’s report';
  },
};
