import type { BuildMembers } from '../build/buildPart.js';
import { lengthText, roughText } from '../measure/lengthText.js';
import type { Unit } from '../measure/unit.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import { torqueText } from '../torque/torqueUnit.js';
import type { CameApartMembers, OldStation } from './cameApartPart.js';
import { halfWords, isDescribed } from './foundApart.js';
import { LOOKS, suggestedLooks } from './wearPatterns.js';

type CameApartJob = CameApartMembers & BuildMembers & { readonly unit: Unit };

/** What the stage is judged with. */
export interface CameApartFacts {
  readonly job: CameApartJob;
  readonly stations: readonly { readonly id: string }[];
}

/** True if both old shells of a station are described. */
export function isStationDescribed(station: OldStation | undefined): boolean {
  return station !== undefined && isDescribed(station.upper) && isDescribed(station.lower);
}

function isBegun({ cameApart }: CameApartJob): boolean {
  return Object.keys(cameApart.stations).length > 0 || cameApart.endPlay !== null || cameApart.words !== '';
}

function undescribed({ job, stations }: CameApartFacts): string[] {
  return stations.flatMap(({ id }) => (isStationDescribed(job.cameApart.stations[id]) ? [] : [id]));
}

function stateOf(facts: CameApartFacts): StageState {
  if (!isBegun(facts.job)) return 'open';
  return facts.stations.length > 0 && undescribed(facts).length === 0 ? 'done' : 'started';
}

/** An engine that comes in parts has nothing to describe: it is asked for only where the stage was begun. */
function todosOf(facts: CameApartFacts): Todo[] {
  const left = isBegun(facts.job) ? undescribed(facts) : [];
  return left.length === 0 ? [] : [{ urgency: 'in-order', todo: `Describe the old shells of ${left.join(', ')}` }];
}

const ARROWS = { front: 'arrow to the front', rear: 'arrow to the rear', none: 'no arrow' } as const;

function capWords({ arrow, number, loosen }: OldStation): string {
  return [
    arrow === null ? '' : ARROWS[arrow],
    number === '' ? '' : `number ${number}`,
    loosen === null ? '' : `loose at ${torqueText(loosen.value, loosen.unit)}`,
  ]
    .filter((one) => one !== '')
    .join(', ');
}

function sheetOf({ job, stations }: CameApartFacts): SheetBlock[] {
  const { cameApart, serial, before, unit } = job;
  const rows = stations.flatMap(({ id }) => {
    const found = cameApart.stations[id];
    if (!found) return [];
    const { upper, lower, clearance, by } = found;
    const looks = suggestedLooks([...upper.patterns, ...lower.patterns]).map((look) => LOOKS[look]);
    const cells = [
      id,
      capWords(found),
      halfWords(upper),
      halfWords(lower),
      clearance?.nm == null ? '' : roughText(clearance.nm, unit),
      looks.join('; '),
      by,
    ];
    return [{ key: id, cells: cells.map((text) => ({ text })) }];
  });
  return [
    ...(serial === '' ? [] : [{ kind: 'fact' as const, label: 'Serial number', text: serial }]),
    ...(before === null
      ? []
      : [
          {
            kind: 'fact' as const,
            label: 'Built before',
            text: [
              before.name,
              before.signed === null
                ? 'not signed'
                : `sheet ${before.signed.revision}, ${before.signed.hash.slice(0, 12)}`,
              before.run === null ? '' : `${before.run.value} ${before.run.unit} since`,
            ]
              .filter((one) => one !== '')
              .join(', '),
            ...(before.signed === null ? {} : { at: before.signed.at }),
          },
        ]),
    ...(cameApart.endPlay?.nm == null
      ? []
      : [
          {
            kind: 'fact' as const,
            label: 'End play as it came',
            text: lengthText(cameApart.endPlay.nm, unit),
          },
        ]),
    ...(rows.length === 0
      ? []
      : [
          {
            kind: 'table' as const,
            key: 'came apart',
            part: 'result' as const,
            title: 'As it came apart',
            head: [
              words('Station'),
              words('Cap'),
              words('Upper shell'),
              words('Lower shell'),
              figures('Old clearance'),
              words('Look at'),
              words('By'),
            ],
            rows,
          },
        ]),
    ...(cameApart.words === '' ? [] : [{ kind: 'note' as const, text: `As it came apart: ${cameApart.words}` }]),
  ];
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  arrow: 'arrow of the cap',
  number: 'number of the cap',
  loosen: 'torque to loosen',
  upper: 'old upper shell',
  lower: 'old lower shell',
  clearance: 'old clearance',
};

/** How an engine came apart: caps, old shells, old end play; and, where it was built here before, what it has worn since. */
export const cameApartSlice: Slice<'cameApart', CameApartFacts> = {
  key: 'cameApart',
  state: stateOf,
  todos: todosOf,
  sheet: sheetOf,
  placeWords: ([member = '', key = '', station = '', field = '']) => {
    if (member === 'serial') return 'serial number';
    if (member === 'before') return key === 'run' ? 'what the engine ran since it was built' : 'the build before';
    if (key === 'endPlay') return 'end play as it came';
    if (key === 'words') return 'what was found on the whole engine';
    if (station === '') return 'how it came apart';
    return `${FIELD_WORDS[field] ?? 'how it came apart'}, ${station}`;
  },
};
