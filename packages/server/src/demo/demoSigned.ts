import { randomUUID } from 'node:crypto';
import {
  type Feature,
  fit,
  formatLength,
  type JobDocument,
  jobFit,
  jobOfType,
  nanometres,
  nextBuild,
  plannedHalves,
  type Reading,
  readingOfDraft,
  SAMPLE_SIGNED,
  SAMPLE_THIRD_BUILD,
  type Slot,
  seeded,
  type TrialReading,
} from '@fettle/core';
import { demoTypes, SEDGE_TYPE } from './demoTypes.js';

/** An engine that was built and signed, with every reading that was ever taken of it. */
export interface SignedEngine {
  readonly id: string;
  readonly by: string;
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  /** Readings that others took the place of, by the id of the one that did. */
  readonly replaced: ReadonlyMap<string, Reading>;
  readonly signedAt: Date;
}

const DAY_MS = 86_400_000;
const PEOPLE = ['Teasel', 'Wren', 'Sorrel'] as const;
const um = (value: number) => nanometres(Math.round(value * 1000));

/** Marks of the Sedge 4, how often this workshop sees each, and the walls that its grades really have, µm off the middle of the band. */
const BORES = [
  { mark: 'A', low: 64_000, high: 64_006, share: 0.2 },
  { mark: 'B', low: 64_006, high: 64_012, share: 0.55 },
  { mark: 'C', low: 64_012, high: 64_019, share: 0.25 },
] as const;
const JOURNALS = [
  { mark: '1', low: 59_988, high: 59_994, share: 0.3 },
  { mark: '2', low: 59_982, high: 59_988, share: 0.5 },
  { mark: '3', low: 59_976, high: 59_982, share: 0.2 },
] as const;
const WALLS = [
  ['Teal', 1989, 0],
  ['Sand', 1992, 0.2],
  ['Plum', 1995, 1.4],
  ['Rust', 1998, 0.1],
  ['Slate', 2001, -0.3],
] as const;

/** Draws of one engine. */
class Draws {
  readonly random: () => number;

  constructor(seed: number) {
    this.random = seeded(seed);
  }

  normal(deviation: number): number {
    return deviation * Math.sqrt(-2 * Math.log(1 - this.random())) * Math.cos(2 * Math.PI * this.random());
  }

  marked(
    bands: readonly { readonly mark: string; readonly low: number; readonly high: number; readonly share: number }[],
  ) {
    const drawn = this.random();
    const upTo = (at: number) => bands.slice(0, at + 1).reduce((sum, { share }) => sum + share, 0);
    const band = bands.find((_, at) => drawn < upTo(at)) ?? bands[0]!;
    return { mark: band.mark, size: band.low + 1 + this.random() * (band.high - band.low - 2) };
  }
}

function readAt(
  { feature, station, slot }: { feature: Feature; station: number; slot: Slot },
  size: number,
  {
    id,
    by,
    at,
    reason = '',
    replaces = null,
  }: { id: string; by: string; at: string; reason?: string; replaces?: string | null },
): Reading {
  const text = formatLength(um(Math.round(size)), 'mm', 3);
  const taken = { instrument: '', needle: 'bigger' as const, celsius: null, gaugeCelsius: null, reason };
  return readingOfDraft(id, { feature, station, slot, text, unit: 'mm', setting: null, replaces, by, at, taken });
}

interface Made {
  readonly id: string;
  readonly name: string;
  readonly serial: string;
  readonly seed: number;
  readonly at: number;
  readonly idOf: (what: string) => string;
  /** What the shaft has lost since it was new, µm. */
  readonly worn?: number;
}

/** Three mains tried with their shells, two readings each: the engine's own offset, and how a gauge repeats. */
function triedMains(
  stations: ReturnType<typeof plannedHalves>,
  bores: readonly { readonly size: number }[],
  draws: Draws,
  { by, moment }: { readonly by: string; readonly moment: (minute: number) => string },
): JobDocument['trials'] {
  const engineOffset = -2 + draws.normal(3);
  const half = ({ shell, label, wall }: (typeof stations)[string]['upper']) => ({
    shell,
    label,
    wall,
    series: 'Marsh',
  });
  return Object.fromEntries(
    [1, 3, 5].map((number, nth) => {
      const { upper, lower } = stations[`M${number}`]!;
      const bore = bores[number - 1]!.size - (upper.wall + lower.wall) / 1000;
      const read = Array.from({ length: 2 }, (_, again): [string, TrialReading] => {
        const nm = um(Math.round(bore + engineOffset + draws.normal(0.9)));
        const text = formatLength(nm, 'mm', 3);
        const stamp = { by, at: moment(60 + nth * 10 + again) };
        return [
          `reading ${again + 1}`,
          { text, unit: 'mm', nm, mode: 'setting', setting: um(60_000), needle: 'bigger', ...stamp },
        ];
      });
      const stamp = { isBelieved: true, at: moment(60 + nth * 10), by };
      return [
        `M${number}`,
        { upper: half(upper), lower: half(lower), rod: null, readings: Object.fromEntries(read), ...stamp },
      ];
    }),
  );
}

/** One Sedge 4, measured, selected, three mains tried, and signed. */
function sedge({ id, name, serial, seed, at, idOf, worn = 0 }: Made): SignedEngine {
  const { type: sheet } = demoTypes().find((one) => one.id === SEDGE_TYPE)!;
  const draws = new Draws(seed);
  const by = PEOPLE[Math.floor(draws.random() * PEOPLE.length)]!;
  const moment = (minute: number) => new Date(at + minute * 60_000).toISOString();
  const bores = Array.from({ length: 5 }, () => draws.marked(BORES));
  const journals = Array.from({ length: 5 }, () => draws.marked(JOURNALS));
  const shells = Object.fromEntries(
    WALLS.flatMap(([grade, wall, off]) =>
      (['upper', 'lower'] as const).map((half) => [
        `${grade.toLowerCase()}-${half}`,
        {
          family: 'main' as const,
          series: 'Marsh',
          grade,
          half,
          wall: nanometres(Math.round((wall + off + draws.normal(0.4)) * 2) * 500),
          stock: 10,
          line: null,
        },
      ]),
    ),
  );
  const job = jobOfType(name, sheet, { type: SEDGE_TYPE, revision: 1 }, false);
  const fasteners = {
    kind: 'maker' as const,
    name: 'M10 cap bolts',
    lubricant: 'engine oil',
    torque: '',
    figures: [],
    since: null,
  };
  const base: JobDocument = {
    ...job,
    serial,
    shells,
    marks: {
      mainBore: { text: bores.map(({ mark }) => mark).join(' '), first: 'front' },
      mainJournal: { text: `J ${journals.map(({ mark }) => mark).join(' ')}`, first: 'front' },
    },
    measuring: { ...job.measuring, slots: { ...job.measuring.slots, mainBore: ['front'], mainJournal: ['front-0'] } },
    fasteners: { ...job.fasteners, main: fasteners },
    trialSchool: 'one',
  };
  const replaced = new Map<string, Reading>();
  const readings = (['mainBore', 'mainJournal'] as const).flatMap((feature, row) =>
    (feature === 'mainBore' ? bores : journals).map(({ size }, place): Reading => {
      const slot = feature === 'mainBore' ? 'front' : 'front-0';
      const where = { feature, station: place + 1, slot } as const;
      const own = size - (feature === 'mainJournal' ? worn * (place === 2 ? 2 : 1) : 0);
      const one = (nth: number, reason = '', replaces: string | null = null) =>
        readAt(where, own + draws.normal(0.9), {
          id: idOf(`${feature}/${place}/${nth}`),
          by,
          at: moment(row * 20 + place * 2 + nth),
          reason,
          replaces,
        });
      const first = one(0);
      // One place an engine is read again; one engine in seven has a figure that was typed wrong.
      if (place !== seed % 5) return first;
      const again = one(1, seed % 7 === 0 && row === 1 ? 'typed wrong' : 'read again', first.id);
      replaced.set(again.id, first);
      return again;
    }),
  );
  const asked = jobFit(base, readings);
  const plan = asked.ok ? fit(asked.problem) : null;
  const stations = asked.ok && plan?.status === 'optimal' ? plannedHalves(base, asked, plan) : {};
  // A draw that no shells suit, or with a figure that is asked about, is drawn again.
  if (Object.keys(stations).length < 5) return sedge({ id, name, serial, seed: seed + 100_003, at, idOf, worn });
  const trials = triedMains(stations, bores, draws, { by, moment });
  const document = { ...base, choice: { at: moment(50), by, stations }, trials };
  return { id, by, document, readings, replaced, signedAt: new Date(at + 6 * 3_600_000) };
}

/** The same engine with what became of it: started, run in, and its pressures until it came back. */
function withRunning(made: SignedEngine): SignedEngine {
  const { id, by, document, signedAt } = made;
  const limit = (least: number, source: string) => ({ least, most: null, unit: 'bar' as const, source });
  const stampAt = (days: number) => ({ by, at: new Date(signedAt.getTime() + days * DAY_MS).toISOString() });
  const entry = (days: number, run: number, [cold, idle, speed]: readonly [number, number, number], words = '') => {
    const read = (value: number, rpm: number) => ({ value, unit: 'bar' as const, rpm });
    const stamp = stampAt(days);
    const pressures = { cold: read(cold, 900), idle: read(idle, 800), speed: read(speed, 3000) };
    return { on: stamp.at.slice(0, 10), run, pressures, celsius: 90, endPlay: null, words, ...stamp };
  };
  const done = (what: string, days: number, run: number | null) => {
    const stamp = stampAt(days);
    return { what, on: run === null ? stamp.at.slice(0, 10) : null, run, done: { words: '', ...stamp }, ...stampAt(0) };
  };
  const checked = { state: 'good' as const, words: '', ...stampAt(2) };
  const running: JobDocument['running'] = {
    unit: 'h',
    start: { oil: checked, primed: checked, pressure: checked, leaks: checked, noise: checked, level: checked },
    limits: {
      idle: limit(1, 'Sedge 4 workshop book, p. 52, at 800 rpm and 90 °C'),
      speed: limit(3.5, 'Sedge 4 workshop book, p. 52, at 3000 rpm and 90 °C'),
    },
    entries: {
      [derivedId(id, 'running 1')]: entry(2, 0.5, [5.4, 2.1, 4.6], 'First start'),
      [derivedId(id, 'running 2')]: entry(16, 21, [5.3, 2, 4.6], 'Oil and filter changed, no metal'),
      [derivedId(id, 'running 3')]: entry(400, 1240, [5.1, 1.5, 4.2]),
    },
    rechecks: {
      [derivedId(id, 're-check 1')]: done('Change oil and filter, look in the filter for metal', 16, 20),
      [derivedId(id, 're-check 2')]: done('Read oil pressure hot', 400, null),
    },
  };
  return { ...made, document: { ...document, running } };
}

/**
 * Engines that were signed over some years, made up from a seed.
 *
 * @param count how many
 * @param now moment of today, ms: the last one was signed some weeks ago
 * @param idOf an id for each, by its number from 0; the ids that samples have, unless another is given
 */
export function signedEngines(
  count: number,
  now: number,
  idOf: (at: number) => string = (at) => SAMPLE_SIGNED[at] ?? randomUUID(),
): SignedEngine[] {
  return Array.from({ length: count }, (_, at) => {
    const [id, number] = [idOf(at), String(1000 + at)];
    // Two of the demo's are builds of one engine, four and two years ago.
    const build = [3, 22].indexOf(at);
    const made = sedge({
      id,
      name: build >= 0 ? `Sedge 4 · no. 0101, ${build === 0 ? 'first' : 'second'} build` : `Sedge 4 · no. ${number}`,
      serial: build >= 0 ? 'S4-0101' : `S4-${number}`,
      seed: build >= 0 ? 4_711 : at + 1,
      worn: build === 1 ? 3 : 0,
      at: now - (count - at) * Math.min(36, 1_500 / count) * DAY_MS,
      idOf: (what) => derivedId(id, what),
    });
    return build === 1 ? withRunning(made) : made;
  });
}

/** A UUID (version 8) of something of an engine: the same for the same. */
function derivedId(engine: string, what: string): string {
  let [one, other] = [0x81_1c_9d_c5, 0x9e_37_79_b9];
  for (const sign of `${engine}/${what}`) {
    one = Math.imul(one ^ sign.codePointAt(0)!, 0x01_00_01_93) >>> 0;
    other = Math.imul(other ^ one, 0x85_eb_ca_6b) >>> 0;
  }
  const hex = [one, other, Math.imul(one, 3) ^ other, Math.imul(other, 5) ^ one]
    .map((part) => (part >>> 0).toString(16).padStart(8, '0'))
    .join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** The third build of an engine: it came in again, was taken apart and described, and half of its shaft is measured. */
export function thirdBuild(
  second: SignedEngine,
  signed: { readonly hash: string; readonly revision: number },
  now: number,
) {
  const at = new Date(now - DAY_MS).toISOString();
  const by = 'Teasel';
  const { id, document, readings, signedAt } = second;
  const next = nextBuild(
    document,
    readings,
    { id, signed: { ...signed, at: signedAt.toISOString() } },
    'Sedge 4 · no. 0101, third build',
    randomUUID,
  );
  const wall = (value: string) => ({ text: value, unit: 'mm' as const, nm: um(Number(value) * 1000), by, at });
  const half = (
    patterns: JobDocument['cameApart']['stations'][string]['upper']['patterns'],
    words = '',
    read?: string,
  ) => ({
    patterns,
    words,
    photo: null,
    wall: read === undefined ? null : wall(read),
  });
  const station = (upper: ReturnType<typeof half>, lower: ReturnType<typeof half>, number: string) => ({
    arrow: 'front' as const,
    number,
    loosen: { value: 78, unit: 'Nm' as const },
    upper,
    lower,
    clearance: null,
    by,
    at,
  });
  const stations = {
    M1: station(half(['even']), half(['even', 'scored']), '1'),
    M2: station(half(['even']), half(['even']), '2'),
    M3: station(half(['middle']), half(['wiped'], 'copper shows over the oil hole', '1.988'), '3'),
    M4: station(half(['even']), half(['embedded']), '4'),
  };
  const first = readings.filter(({ feature }) => feature === 'mainJournal');
  return {
    id: SAMPLE_THIRD_BUILD,
    by,
    document: {
      ...next,
      before: next.before && { ...next.before, run: { value: 1_850, unit: 'h' as const } },
      cameApart: { stations, endPlay: wall('0.19'), words: 'Oil grey, filter full of lining' },
    },
    readings: (['mainJournal'] as const).map((feature) => ({
      feature,
      slot: 'front-0' as const,
      by,
      texts: first.map(({ nm, station }) =>
        station > 4 ? '' : formatLength(nanometres(nm! - (station === 3 ? 17_000 : 4_000)), 'mm', 3),
      ),
    })),
  };
}
