import {
  type JobDocument,
  PRESSURE_MOMENTS,
  PRESSURE_UNITS,
  type PressureMoment,
  type PressureUnit,
  parseLength,
  plainNumber,
  type RunEntry,
  typedLength,
} from '@fettle/core';

/** A reading after the build as it is typed. */
export interface EntryText {
  readonly on: string;
  readonly run: string;
  readonly unit: PressureUnit;
  readonly pressures: Readonly<Partial<Record<PressureMoment, { readonly value: string; readonly rpm: string }>>>;
  readonly celsius: string;
  readonly endPlay: string;
  readonly words: string;
}

/** The box that a fault stands at: `on`, `run`, `cold value`, `idle rpm`, `celsius`, `endPlay`; `all` where nothing was typed. */
type Faults = ReadonlyMap<string, string>;

const MOST_DEGREES = 250;

/** The unit that oil pressure is read in beside lengths in a unit, until somebody chooses another. */
export function usualPressureUnit({ unit }: Pick<JobDocument, 'unit'>): PressureUnit {
  return unit === 'in' ? 'psi' : 'bar';
}

/** A form where nothing was typed yet. */
export function blankEntry(on: string, unit: PressureUnit): EntryText {
  return { on, run: '', unit, pressures: {}, celsius: '', endPlay: '', words: '' };
}

/** What was typed as a reading, or what is wrong with it, box by box. */
export function entryOfText(
  text: EntryText,
  job: Pick<JobDocument, 'unit' | 'running'>,
  stamp: { readonly by: string; readonly at: string },
): { readonly ok: true; readonly entry: RunEntry } | { readonly ok: false; readonly faults: Faults } {
  const faults = new Map<string, string>();
  const number = (box: string, typed: string, most: number, least: number, words: string) => {
    if (typed.trim() === '') return null;
    const value = plainNumber(typed);
    if (value >= least && value <= most) return value;
    faults.set(box, words);
    return null;
  };
  if (!/^\d{4}-\d{2}-\d{2}$/u.test(text.on)) faults.set('on', 'Enter the day.');
  const run = number(
    'run',
    text.run,
    1e7,
    0,
    `Enter ${job.running.unit} since the build, such as 20, or leave it blank.`,
  );
  const pressures: RunEntry['pressures'] = {};
  for (const moment of PRESSURE_MOMENTS) {
    const typed = text.pressures[moment] ?? { value: '', rpm: '' };
    const value = number(
      `${moment} value`,
      typed.value,
      100_000,
      0,
      'Enter a pressure, such as 4.2, or leave it blank.',
    );
    const rpm = number(`${moment} rpm`, typed.rpm, 50_000, 1, 'Enter rpm, such as 800, or leave it blank.');
    if (value !== null) pressures[moment] = { value, unit: text.unit, rpm };
    else if (rpm !== null) faults.set(`${moment} value`, 'Enter the pressure at this speed.');
  }
  const celsius = number('celsius', text.celsius, MOST_DEGREES, 0, `Enter °C, 0 to ${MOST_DEGREES}; or nothing.`);
  const parsed = parseLength(text.endPlay, { unit: job.unit, signed: 'sign' });
  const isRead = text.endPlay.trim() !== '';
  if (isRead && !parsed.ok) faults.set('endPlay', parsed.message);
  else if (isRead && parsed.ok && parsed.nm < 0)
    faults.set('endPlay', 'End play cannot be negative: zero the dial at one end.');
  const endPlay = isRead && parsed.ok ? typedLength(text.endPlay, job.unit, parsed.nm, stamp) : null;
  const words = text.words.trim();
  const isNothing = Object.keys(pressures).length === 0 && run === null && endPlay === null && words === '';
  if (isNothing && faults.size === 0) faults.set('all', 'Enter a pressure, what it has run, the end play, or words.');
  if (faults.size > 0) return { ok: false, faults };
  return { ok: true, entry: { on: text.on, run, pressures, celsius, endPlay, words, ...stamp } };
}

/** The unit that was typed last, or the usual one. */
export function lastUnit({ unit, running }: Pick<JobDocument, 'unit' | 'running'>): PressureUnit {
  const units = Object.values(running.entries)
    .sort((one, other) => (one.at < other.at ? 1 : -1))
    .flatMap(({ pressures }) => Object.values(pressures).map((read) => read.unit));
  return PRESSURE_UNITS.find((one) => one === units[0]) ?? usualPressureUnit({ unit });
}
