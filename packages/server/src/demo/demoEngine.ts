import {
  BLANK_JOINT,
  type DrawerHalf,
  type DrawerPiece,
  drawerHalfSchema,
  drawerPieceSchema,
  type EndPlayReading,
  eachFeature,
  FEATURE_TABLE,
  type JobDocument,
  jobOfType,
  type Moment,
  nanometres,
  newJob,
  type PieceKind,
  pieceOfLine,
  type Side,
  shellOfLine,
  shellsOfSheet,
  type Unit,
  usualLayout,
} from '@fettle/core';
import { assembledEngine } from './assembledEngine.js';
import { demoTypes, SEDGE_TYPE } from './demoTypes.js';
import { type DemoEngine, STARTED, size, TRIED } from './demoWriting.js';
import { triedEngine } from './triedEngine.js';

/** Dial readings of one moment, as they were typed. */
function dial(unit: Unit, by: string, moment: Moment, texts: readonly string[]): Record<string, EndPlayReading> {
  return Object.fromEntries(
    texts.map((text, at) => [
      `${moment} ${at + 1}`,
      {
        moment,
        angle: at % 2 === 0 ? (0 as const) : (180 as const),
        text,
        unit,
        nm: size(text, unit),
        by,
        at: STARTED,
      },
    ]),
  );
}

/** Pieces of one kind by name: thickness and how many. */
function pieces(
  kind: PieceKind,
  unit: Unit,
  list: readonly (readonly [name: string, thickness: string, stock: number | null])[],
  more: { half?: Side; leaf?: string } = {},
): JobDocument['pieces'] {
  return Object.fromEntries(
    list.map(([name, thickness, stock]) => [
      `${kind} ${name} ${more.half ?? ''}`.trim(),
      {
        kind,
        name,
        thickness: size(thickness, unit),
        ...(more.half === undefined ? {} : { half: more.half }),
        ...(more.leaf === undefined ? {} : { leaf: size(more.leaf, unit) }),
        stock,
        line: null,
      },
    ]),
  );
}

function layout(mains: number, rods: number, rodsPerPin: 1 | 2, thrustMain: number) {
  const usual = usualLayout(mains, rods, rodsPerPin, thrustMain);
  if (!usual.ok) throw new Error(`demo: ${usual.message}`);
  return usual.layout;
}

function sedge4(): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const base = newJob('Sedge 4 · no. 0217', 'mm', layout(5, 4, 1, 3), {
    block: 'aluminium',
    caps: 'iron',
    rods: 'steel',
  });
  const shells: JobDocument['shells'] = {};
  const grades = [
    ['Teal', '1.989', 2, 2],
    ['Sand', '1.992', 3, 2],
    ['Plum', '1.995', 4, 4],
    ['Rust', '1.998', 3, 3],
    ['Slate', '2.001', 2, 2],
  ] as const;
  for (const [grade, wall, upper, lower] of grades) {
    const key = grade.toLowerCase();
    shells[`${key}-upper`] = {
      family: 'main',
      series: 'Marsh',
      grade,
      half: 'upper',
      wall: mm(wall),
      stock: upper,
      line: null,
    };
    shells[`${key}-lower`] = {
      family: 'main',
      series: 'Marsh',
      grade,
      half: 'lower',
      wall: mm(wall),
      stock: lower,
      line: null,
    };
  }
  const sheet = 'Sedge 4 workshop book';
  return {
    id: '5ed9e400-0217-4000-8000-000000000001',
    by: 'Wren',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: mm('64.000'), high: mm('64.019'), source: `${sheet}, p. 31` },
        mainJournal: { low: mm('59.976'), high: mm('59.994'), source: `${sheet}, p. 34` },
        mainClearance: { low: mm('0.020'), high: mm('0.050'), source: `${sheet}, p. 36` },
      },
      measuring: { ...base.measuring, setting: { ...base.measuring.setting, mainBore: mm('64.010') } },
      rules: { ...base.rules, maxSpread: mm('0.010') },
      shells,
    },
    readings: [
      { feature: 'mainBore', slot: 'front', by: 'Wren', texts: ['64.012', '64.009', '64.007', '64.011', '64.014'] },
      { feature: 'mainBore', slot: 'rear', by: 'Wren', texts: ['64.012', '64.008', '64.008', '64.010', '+0.3'] },
      { feature: 'mainJournal', slot: 'front-0', by: 'Teasel', texts: ['59.981', '59.983', '59.987', '', ''] },
      { feature: 'mainJournal', slot: 'front-90', by: 'Teasel', texts: ['59.982', '59.983', '', '', ''] },
    ],
  };
}

function samphire8(): DemoEngine {
  const inch = (text: string) => size(text, 'in');
  const base = newJob('Samphire 8 · no. 0046', 'in', layout(5, 8, 2, 5), {
    block: 'iron',
    caps: 'iron',
    rods: 'steel',
  });
  const half = (grade: string, side: 'upper' | 'lower', wall: string, stock: number) => ({
    family: 'main' as const,
    series: 'Glasswort',
    grade,
    half: side,
    wall: inch(wall),
    stock,
    line: null,
  });
  const sheet = 'Samphire 8 overhaul manual';
  return {
    id: '5a3b4180-0046-4000-8000-000000000002',
    by: 'Teasel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: inch('2.6406'), high: inch('2.6416'), source: `${sheet}, table 2-1` },
        mainJournal: { low: inch('2.4483'), high: inch('2.4493'), source: `${sheet}, table 2-2` },
        mainClearance: { low: inch('.0015'), high: inch('.0032'), source: `${sheet}, table 2-4` },
      },
      measuring: {
        ...base.measuring,
        order: 'down',
        slots: { ...base.measuring.slots, mainJournal: ['front-0', 'front-90', 'rear-0', 'rear-90'] },
        setting: { ...base.measuring.setting, mainBore: inch('2.6410') },
      },
      rules: { ...base.rules, extras: { M5: nanometres(12_700) } },
      shells: {
        'std-upper': half('Standard', 'upper', '.0950', 5),
        'std-lower': half('Standard', 'lower', '.0950', 5),
        'extra-upper': half('Extra clearance', 'upper', '.0945', 3),
        'extra-lower': half('Extra clearance', 'lower', '.0945', 3),
      },
    },
    readings: [
      { feature: 'mainBore', slot: 'front', by: 'Wren', texts: ['2.6411', '2.6412', '2.6410', '2.6412', '2.6413'] },
      { feature: 'mainBore', slot: 'rear', by: 'Wren', texts: ['2.6411', '2.6411', '+0.1', '2.6412', '2.6413'] },
      {
        feature: 'mainJournal',
        slot: 'front-0',
        by: 'Teasel',
        texts: ['2.4488', '2.4490', '2.4491', '2.4487', '2.4488'],
      },
      {
        feature: 'mainJournal',
        slot: 'front-90',
        by: 'Teasel',
        texts: ['2.4488', '2.4489', '2.4490', '2.4487', '2.4488'],
      },
      {
        feature: 'mainJournal',
        slot: 'rear-0',
        by: 'Teasel',
        texts: ['2.4489', '2.4490', '2.4491', '2.4488', '2.44885'],
      },
      {
        feature: 'mainJournal',
        slot: 'rear-90',
        by: 'Teasel',
        texts: ['2.4488', '2.4490', '2.4490', '2.4487', '2.4488'],
      },
    ],
  };
}

/** Six rods of three marks, pins of two, and a drawer that has none of the second grade: few ways to place the rods work. */
function reed6(): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const base = newJob(
    'Reed 6 · no. 0105',
    'mm',
    layout(7, 6, 1, 4),
    { block: 'iron', caps: 'iron', rods: 'steel' },
    true,
  );
  const shells: JobDocument['shells'] = {};
  const mains = [
    ['Fern', '1.990', 3],
    ['Moss', '1.993', 4],
    ['Kelp', '1.996', 4],
    ['Silt', '1.999', 3],
  ] as const;
  const rods = [
    ['Fern', '1.4875', 2],
    ['Moss', '1.4905', 0],
    ['Kelp', '1.4935', 4],
    ['Silt', '1.4965', 1],
  ] as const;
  for (const half of ['upper', 'lower'] as const) {
    for (const [family, grades] of [
      ['main', mains],
      ['rod', rods],
    ] as const) {
      for (const [grade, wall, stock] of grades) {
        const id = `${family}-${grade.toLowerCase()}-${half}`;
        shells[id] = { family, series: 'Brackish', grade, half, wall: mm(wall), stock, line: null };
      }
    }
  }
  const sheet = 'Reed 6 works manual';
  const marks = ['A', 'C', 'B', 'A', 'C', 'B'];
  return {
    id: '4eed6000-0105-4000-8000-000000000003',
    by: 'Sorrel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: mm('68.000'), high: mm('68.019'), source: `${sheet}, p. 12` },
        mainJournal: { low: mm('63.970'), high: mm('63.990'), source: `${sheet}, p. 14` },
        mainClearance: { low: mm('0.022'), high: mm('0.052'), source: `${sheet}, p. 15` },
        bigEnd: { low: mm('51.000'), high: mm('51.018'), source: `${sheet}, p. 21` },
        pin: { low: mm('47.982'), high: mm('47.996'), source: `${sheet}, p. 22` },
        rodClearance: { low: mm('0.030'), high: mm('0.040'), source: `${sheet}, p. 23` },
        endPlay: { low: mm('0.090'), high: mm('0.270'), source: `${sheet}, p. 18` },
      },
      endPlay: {
        ...base.endPlay,
        kind: 'washers',
        fitted: { front: mm('2.362'), rear: mm('2.361'), width: null },
        readings: dial('mm', 'Sorrel', 'found', ['0.055', '0.060']),
      },
      pieces: Object.assign(
        {},
        ...(['upper', 'lower'] as const).map((half) =>
          pieces(
            'washer',
            'mm',
            [
              ['Thin', '2.310', 2],
              ['Half thin', '2.335', 1],
              ['Plain', '2.360', 4],
              ['Thick', '2.410', 2],
            ],
            { half },
          ),
        ),
      ) as JobDocument['pieces'],
      measuring: {
        ...base.measuring,
        slots: eachFeature((feature) => [FEATURE_TABLE[feature].usualSlots[0]]),
      },
      rules: { ...base.rules, mixedHalves: false },
      rods: Object.fromEntries(marks.map((mark, at) => [String(at + 1), { mark, pin: null }])),
      shells,
    },
    readings: [
      {
        feature: 'mainBore',
        slot: 'front',
        by: 'Sorrel',
        texts: ['68.008', '68.010', '68.006', '68.009', '68.011', '68.007', '68.009'],
      },
      {
        feature: 'mainJournal',
        slot: 'front-0',
        by: 'Teasel',
        texts: ['63.981', '63.978', '63.984', '63.980', '63.977', '63.983', '63.979'],
      },
      {
        feature: 'bigEnd',
        slot: 'front',
        by: 'Sorrel',
        texts: ['51.002', '51.014', '51.008', '51.0025', '51.014', '51.0085'],
      },
      {
        feature: 'pin',
        slot: 'front-0',
        by: 'Teasel',
        texts: ['47.986', '47.992', '47.986', '47.992', '47.992', '47.9915'],
      },
    ],
  };
}

/** Kinds of half in the workshop's drawer, by grade: walls, and how many of each side. */
const WORKSHOP = [
  ['Teal', '1.992', 3, 'A 1'],
  ['Plum', '1.995', 4, 'A 2'],
  ['Rust', '1.998', 3, 'A 3'],
] as const;

function workshopId(grade: string, half: 'upper' | 'lower'): string {
  const at = WORKSHOP.findIndex(([name]) => name === grade);
  return `d4a3e400-0000-4000-8000-00000000000${2 * at + (half === 'upper' ? 1 : 2)}`;
}

/** What the workshop's drawer holds: enough for the twins on the benches together, but not if each takes its best alone. */
export function demoDrawer(): { id: string; half: DrawerHalf }[] {
  return WORKSHOP.flatMap(([grade, wall, onHand, bin]) =>
    (['upper', 'lower'] as const).map((half) => ({
      id: workshopId(grade, half),
      half: drawerHalfSchema.parse({
        family: 'main',
        series: 'Osier',
        grade,
        half,
        wall: size(wall, 'mm'),
        onHand,
        bin,
        price: 6.4,
        least: 3,
      }),
    })),
  );
}

/** Ring shims of the workshop: thickness, how many. */
const RINGS = [
  ['0.22', '0.221', 2],
  ['0.24', '0.240', 3],
  ['0.25', '0.252', 1],
  ['0.27', '0.269', 2],
  ['0.30', '0.301', 1],
] as const;

function ringId(at: number): string {
  return `d4a3e400-0000-4000-8000-0000000000b${at + 1}`;
}

/** What the workshop's drawer holds of rings, for engines whose end play they set. */
export function demoPieces(): { id: string; piece: DrawerPiece }[] {
  return RINGS.map(([name, thickness, onHand], at) => ({
    id: ringId(at),
    piece: drawerPieceSchema.parse({
      kind: 'ring',
      name,
      thickness: size(thickness, 'mm'),
      onHand,
      bin: 'B 1',
      price: 1.8,
      least: 1,
    }),
  }));
}

/** Small engines that draw on the workshop's drawer. */
function rushTwin(serial: number, bores: readonly string[], journals: readonly string[]): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const base = newJob(`Rush Twin · no. 0${serial}`, 'mm', layout(3, 2, 1, 2), {
    block: 'iron',
    caps: 'iron',
    rods: 'steel',
  });
  const sheet = 'Rush Twin workshop book';
  return {
    id: `4057e200-0${serial}-4000-8000-000000000004`,
    by: 'Teasel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: mm('64.000'), high: mm('64.019'), source: `${sheet}, p. 7` },
        mainJournal: { low: mm('59.976'), high: mm('59.994'), source: `${sheet}, p. 8` },
        mainClearance: { low: mm('0.028'), high: mm('0.044'), source: `${sheet}, p. 9` },
        endPlay: { low: mm('0.070'), high: mm('0.150'), source: `${sheet}, p. 11` },
      },
      endPlay: {
        ...base.endPlay,
        kind: 'rings',
        settle: mm('0.010'),
        aim: mm('0.100'),
        readings: serial === 301 ? dial('mm', 'Teasel', 'without', ['0.862', '0.864']) : {},
      },
      pieces: Object.fromEntries(demoPieces().map(({ id, piece }) => [`ring ${piece.name}`, pieceOfLine(id, piece)])),
      measuring: {
        ...base.measuring,
        slots: { ...base.measuring.slots, mainBore: ['front'], mainJournal: ['front-0'] },
      },
      shells: Object.fromEntries(
        demoDrawer().map(({ id, half }) => [`${half.grade}-${half.half}`.toLowerCase(), shellOfLine(id, half)]),
      ),
    },
    readings: [
      { feature: 'mainBore', slot: 'front', by: 'Teasel', texts: bores },
      { feature: 'mainJournal', slot: 'front-0', by: 'Wren', texts: journals },
    ],
  };
}

/** A second Sedge that came with its marks written down: chosen by them until it is read, and one of them is contradicted. */
function markedSedge4(): DemoEngine {
  const { id: type, type: sheet } = demoTypes().find(({ id }) => id === SEDGE_TYPE)!;
  const job = jobOfType('Sedge 4 · no. 0233', sheet, { type, revision: 1 }, true);
  const shells = (['main', 'rod'] as const).flatMap((family) => shellsOfSheet(sheet, family, null));
  return {
    id: '5ed9e400-0233-4000-8000-000000000005',
    by: 'Wren',
    document: {
      ...job,
      measuring: { ...job.measuring, slots: { ...job.measuring.slots, mainBore: ['front'], mainJournal: ['front-0'] } },
      marks: {
        mainBore: { text: 'B A C B B', first: 'front' },
        mainJournal: { text: 'J 2 1 2 3 2', first: 'front' },
        pin: { text: 'P 1 2 2 1', first: 'front' },
      },
      rods: Object.fromEntries(['K', 'L', 'L', 'K'].map((mark, at) => [String(at + 1), { mark, pin: null }])),
      shells: Object.fromEntries(shells.map((shell) => [`${shell.family} ${shell.grade} ${shell.half}`, shell])),
    },
    readings: [
      { feature: 'mainJournal', slot: 'front-0', by: 'Teasel', texts: ['59.984', '59.983', '59.985', '', ''] },
      { feature: 'mainBore', slot: 'front', by: 'Wren', texts: ['64.009', '64.004', '64.016', '', ''] },
    ],
  };
}

/** A white-metal engine of the works: shims at its joints, two of them read, the third to come. */
function burr2(): DemoEngine {
  const inch = (text: string) => size(text, 'in');
  const base = newJob('Burr 2 · no. 0009', 'in', layout(3, 2, 1, 2), { block: 'iron', caps: 'iron', rods: 'steel' });
  const sheet = 'Burr 2 works drawing';
  const side = (go: string, noGo: string, shim: string) => ({ go: inch(go), noGo: inch(noGo), shim: inch(shim) });
  const wide = (text: string) => ({ text, unit: 'in' as const, nm: inch(text) });
  const strip = (front: string, rear: string | null) => ({
    diameter: inch('.008'),
    name: '',
    widths: { front: wide(front), rear: rear === null ? null : wide(rear) },
    by: 'Sorrel',
    at: TRIED,
  });
  return {
    id: 'b0992000-0009-4000-8000-000000000006',
    by: 'Sorrel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: inch('2.8740'), high: inch('2.8750'), source: `${sheet} 14` },
        mainJournal: { low: inch('2.4980'), high: inch('2.4990'), source: `${sheet} 15` },
        mainClearance: { low: inch('.0020'), high: inch('.0040'), source: `${sheet} 15` },
        endPlay: { low: inch('.004'), high: inch('.010'), source: `${sheet} 16` },
        crush: { low: inch('.003'), high: inch('.006'), source: `${sheet} 14` },
      },
      crush: {
        ...base.crush,
        kind: 'split-line',
        joints: {
          M1: { ...BLANK_JOINT, left: side('.0015', '.0020', '.012'), right: side('.0015', '.0020', '.012') },
          M2: { ...BLANK_JOINT, left: side('.0040', '.0045', '.012'), right: side('.0040', '.0045', '.012') },
        },
      },
      // Nothing was measured yet: strips are all that is known of its clearances.
      strips: { M1: strip('.0168', '.0172'), M2: strip('.0160', null) },
      pieces: {
        ...pieces('shim', 'in', [
          ['12 thou', '.0120', 6],
          ['13 thou', '.0130', 4],
          ['13½ thou', '.0135', 2],
        ]),
        ...pieces('shim', 'in', [['Laminated', '.0160', 2]], { leaf: '.002' }),
      },
    },
    readings: [],
  };
}

/** The engines that a new installation shows: invented, of the invented Saltmarsh works. */
export function demoEngines(): DemoEngine[] {
  return [
    rushTwin(301, ['64.010', '64.012', '64.009'], ['59.985', '59.984', '59.986']),
    rushTwin(302, ['64.011', '64.008', '64.010'], ['59.984', '59.987', '59.985']),
    rushTwin(303, ['64.013', '64.011', '64.006'], ['59.982', '59.986', '59.988']),
    triedEngine(sedge4()),
    assembledEngine(triedEngine(sedge4()), demoTypes().find(({ id }) => id === SEDGE_TYPE)!.type),
    sedge4(),
    samphire8(),
    reed6(),
    burr2(),
    markedSedge4(),
  ].map(asked);
}

/** The engine after its fitter has said which way the needle goes, and that the caps were on where the bores were read. */
function asked(engine: DemoEngine): DemoEngine {
  const { document, readings, by } = engine;
  const { boreGauge } = document.instruments;
  const said = readings.some(({ feature }) => feature === 'mainBore') ? { mainBore: { by, at: STARTED } } : {};
  return {
    ...engine,
    document: {
      ...document,
      instruments: { ...document.instruments, boreGauge: { ...boreGauge, needle: 'bigger' } },
      measuring: { ...document.measuring, capsOn: said },
    },
  };
}
