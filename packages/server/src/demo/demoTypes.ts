import type { TableCell } from '@fettle/core';
import {
  derivedUndersize,
  type EngineType,
  engineTypeSchema,
  nanometres,
  newEngineType,
  type Paint,
  usualLayout,
} from '@fettle/core';

export const SEDGE_TYPE = '5ed9e400-0000-4000-8000-0000000000a1';
export const REED_TYPE = '4eed6000-0000-4000-8000-0000000000a2';

const um = (value: number) => nanometres(Math.round(value * 1000));

const limit = (source: string) => (page: string, low: number, high: number) => ({
  low: um(low),
  high: um(high),
  source: `${source}, ${page}`,
});
const band = (mark: string, low: number, high: number) => ({ mark, low: um(low), high: um(high) });
/** A grade whose wall may be a thousandth of a millimetre off on either side. */
const grade = (mark: string, wall: number, paint: Paint) => ({ ...band(mark, wall - 1, wall + 1), paint });

/** A table from its rows as they are printed: journals along, one line a housing mark. */
function printed(
  housings: readonly string[],
  journals: readonly string[],
  lines: readonly string[],
): EngineType['main']['table'] {
  return Object.fromEntries(
    housings.map((housing, row) => {
      const cells = lines[row]!.split(' ').map((cell): TableCell => {
        const [upper, lower] = cell.split('/') as [string, string | undefined];
        return lower === undefined ? upper : { upper, lower };
      });
      return [housing, Object.fromEntries(journals.map((journal, column) => [journal, cells[column]!]))];
    }),
  );
}

function layoutOf(mains: number, rods: number, thrust: number) {
  const usual = usualLayout(mains, rods, 1, thrust);
  if (!usual.ok) throw new Error(`demo: ${usual.message}`);
  return usual.layout;
}

/** Mains and rods with one grade for both halves. */
function sedge4(): EngineType {
  const book = limit('Sedge 4 workshop book');
  const grades = [
    grade('Teal', 1989, 'green'),
    grade('Sand', 1992, 'yellow'),
    grade('Plum', 1995, 'violet'),
    grade('Rust', 1998, 'orange'),
    grade('Slate', 2001, 'grey'),
  ];
  const mainJournal = book('p. 34', 59_976, 59_994);
  return engineTypeSchema.parse({
    ...newEngineType('Sedge 4', 'mm', layoutOf(5, 4, 3)),
    note: 'Aluminium block, iron caps',
    thrustKind: 'washers',
    materials: { block: 'aluminium', caps: 'iron', rods: 'steel' },
    limits: {
      mainBore: book('p. 31', 64_000, 64_019),
      mainJournal,
      mainClearance: book('p. 36', 20, 50),
      bigEnd: book('p. 41', 48_000, 48_016),
      pin: book('p. 42', 44_976, 44_992),
      rodClearance: book('p. 43', 20, 52),
      outOfRound: book('p. 34', 0, 5),
      taper: book('p. 34', 0, 5),
      endPlay: book('p. 37', 80, 250),
      runout: book('p. 35', 0, 40),
    },
    torque: [
      {
        fastener: 'Main caps',
        steps: '25 · 50 N·m, then 60°',
        place: 'main-inner',
        perCap: 2,
        tightening: { school: 'angle', unit: 'Nm', final: 50, stages: 2, angles: [60] },
        lubricant: 'engine oil',
        source: 'Sedge 4 workshop book, p. 38',
      },
      {
        fastener: 'Rod caps',
        steps: '20 N·m, then 90°',
        place: 'rod',
        perCap: 2,
        tightening: { school: 'angle', unit: 'Nm', final: 20, stages: 1, angles: [90] },
        lubricant: 'engine oil',
        source: 'Sedge 4 workshop book, p. 44',
      },
    ],
    rows: [
      { feature: 'mainBore', prefix: '', first: 'front' },
      { feature: 'mainJournal', prefix: 'J', first: 'front' },
      { feature: 'bigEnd', prefix: '', first: 'front' },
      { feature: 'pin', prefix: 'P', first: 'front' },
    ],
    main: {
      series: 'Marsh',
      tableSource: 'Sedge 4 workshop book, p. 36',
      housing: [band('A', 64_000, 64_006), band('B', 64_006, 64_012), band('C', 64_012, 64_019)],
      journal: [band('1', 59_988, 59_994), band('2', 59_982, 59_988), band('3', 59_976, 59_982)],
      grades,
      table: printed(['A', 'B', 'C'], ['1', '2', '3'], ['Teal Sand Plum', 'Sand Plum Rust', 'Plum Rust Slate']),
      undersizes: [derivedUndersize('0.25', um(250), mainJournal, grades)],
    },
    rod: {
      series: 'Marsh rod',
      tableSource: 'Sedge 4 workshop book, p. 43',
      housing: [band('K', 48_000, 48_008), band('L', 48_008, 48_016)],
      journal: [band('1', 44_984, 44_992), band('2', 44_976, 44_984)],
      grades: [grade('Teal', 1490, 'green'), grade('Plum', 1494, 'violet'), grade('Slate', 1498, 'grey')],
      table: printed(['K', 'L'], ['1', '2'], ['Teal Plum', 'Plum Slate']),
    },
  });
}

/** Mains with an upper and a lower grade in some cells; its loosest cell can leave the limits, and is told. */
function reed6(): EngineType {
  const book = limit('Reed 6 works manual');
  return engineTypeSchema.parse({
    ...newEngineType('Reed 6', 'mm', layoutOf(7, 6, 4)),
    note: 'Iron block',
    thrustKind: 'flanged',
    materials: { block: 'iron', caps: 'iron', rods: 'steel' },
    limits: {
      mainBore: book('p. 12', 68_000, 68_019),
      mainJournal: book('p. 14', 63_970, 63_990),
      mainClearance: book('p. 15', 22, 52),
      bigEnd: book('p. 21', 51_000, 51_018),
      pin: book('p. 22', 47_982, 47_996),
      rodClearance: book('p. 23', 30, 40),
    },
    torque: [
      {
        fastener: 'Main caps',
        steps: '40 · 75 · 110 N·m',
        place: 'main-inner',
        perCap: 2,
        tightening: { school: 'stages', unit: 'Nm', final: 110, stages: 3 },
        lubricant: 'engine oil',
        source: 'Reed 6 works manual, p. 17',
      },
    ],
    rows: [
      { feature: 'mainBore', prefix: '', first: 'rear' },
      { feature: 'mainJournal', prefix: '', first: 'front' },
    ],
    main: {
      series: 'Brackish',
      tableSource: 'Reed 6 works manual, p. 16',
      housing: [band('1', 68_000, 68_006), band('2', 68_006, 68_012), band('3', 68_012, 68_019)],
      journal: [
        band('A', 63_986, 63_990),
        band('B', 63_982, 63_986),
        band('C', 63_978, 63_982),
        band('D', 63_974, 63_978),
        band('E', 63_970, 63_974),
      ],
      grades: [
        grade('Fern', 1990, 'green'),
        grade('Moss', 1993, 'brown'),
        grade('Kelp', 1996, 'blue'),
        grade('Silt', 1999, 'white'),
      ],
      table: printed(
        ['1', '2', '3'],
        ['A', 'B', 'C', 'D', 'E'],
        [
          'Fern Fern/Moss Moss Moss/Kelp Kelp/Silt',
          'Fern/Moss Moss/Kelp Kelp Kelp/Silt Silt',
          'Moss/Kelp Kelp/Silt Silt Silt Silt',
        ],
      ),
    },
  });
}

/** The engine types that a new installation shows: invented, of the invented Saltmarsh works. */
export function demoTypes(): { id: string; type: EngineType }[] {
  return [
    { id: SEDGE_TYPE, type: sedge4() },
    { id: REED_TYPE, type: reed6() },
  ];
}
