import { columnText, lengthText } from '../measure/lengthText.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { FEATURE_TABLE, type Feature, type MeasuringStage, partName, slotName } from '../part/feature.js';
import { type Reading, readingModeWord } from '../part/reading.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState } from '../stage/slice.js';
import { capsOn } from './capsOn.js';
import { isWanting, type ReadingSteps, readingSteps } from './measuredParts.js';
import type { MeasuringFacts } from './measuringFacts.js';
import { measuringPlace } from './measuringSettings.js';
import { offLineWords, readingDoubts } from './readingDoubts.js';
import { instrumentThen, instrumentWords, readWith } from './readWith.js';
import { shapeBlocks } from './shapeSheet.js';
import { adriftReadings, isFarReading } from './suspectReadings.js';

function stateOf({ job, parts, doubtful }: MeasuringFacts, feature: Feature): StageState {
  const own = parts[feature];
  const isOff = own.some(({ findings, isOutdated }) => findings.length > 0 || isOutdated);
  if (isOff || doubtful.some((reading) => reading.feature === feature)) return 'attention';
  if (own.every((part) => !isWanting(job, part))) return 'done';
  return own.some(({ size }) => size?.kind === 'read') ? 'started' : 'open';
}

/**
 * What was taken off a reading for the error of its instrument, and what is to be known of it, in words; empty where there is nothing.
 *
 * @example correctionWords({ unit: 'mm' }, { error: 2000, drift: 0, instrument: { calibratedOn: '2026-03-01', error: null, overdueSince: null, wrong: null } }) // 'less 0.002 mm by calibration of 2026-03-01'
 */
export function correctionWords(
  { unit }: Pick<MeasuringFacts['job'], 'unit'>,
  { error, drift, instrument }: Pick<ReadingSteps, 'error' | 'drift' | 'instrument'>,
): string {
  const off = (length: Nanometres) =>
    `${length > 0 ? 'less' : 'plus'} ${lengthText(nanometres(Math.abs(length)), unit)}`;
  return [
    ...(error === 0 ? [] : [`${off(error)} by calibration of ${instrument.calibratedOn}`]),
    ...(drift === 0 ? [] : [`${off(drift)} for drift between zero checks`]),
    ...(instrument.error?.kind === 'beyond' ? ['not corrected: outside the calibrated range'] : []),
    ...(instrument.overdueSince === null ? [] : [`calibration overdue since ${instrument.overdueSince}`]),
    ...(instrument.wrong === null ? [] : [`calibration not to be trusted: ${instrument.wrong}`]),
  ].join('; ');
}

function howRead(job: MeasuringFacts['job'], reading: Reading): string {
  const { taken } = reading;
  const steps = readingSteps(job, reading);
  const mode = taken?.mode === undefined ? '' : readingModeWord(taken.mode);
  return [taken?.instrument ?? '', mode, steps ? correctionWords(job, steps) : '']
    .filter((word) => word !== '')
    .join(', ');
}

/** Every reading of a feature, as it was typed and what it comes to, with how it was taken. */
function readingsBlock({ job, readings }: MeasuringFacts, feature: Feature): SheetBlock[] {
  const { slots, name } = FEATURE_TABLE[feature];
  const own = readings
    .filter((one) => one.feature === feature && one.text !== '')
    .sort((one, other) => one.station - other.station || slots.indexOf(one.slot) - slots.indexOf(other.slot));
  if (own.length === 0) return [];
  const figure = columnText(
    own.flatMap(({ nm, setting }) => [nm, setting]),
    job.unit,
  );
  const length = (value: Nanometres | null) => (value === null ? '' : `${figure(value)} ${job.unit}`);
  return [
    {
      kind: 'table',
      key: `readings ${feature}`,
      part: 'readings',
      title: `Readings: ${name.toLowerCase()}s`,
      head: [
        words('Part'),
        words('Where'),
        figures('As typed'),
        figures('Size'),
        figures('Setting'),
        words('Instrument, how'),
        figures('At °C'),
        words('By'),
        words('When'),
      ],
      rows: own.map((reading) => {
        const { id, station, slot, text, nm, setting, taken, by, at } = reading;
        const cells = [
          { text: partName(feature, station) },
          { text: slotName(slot) },
          { text },
          { text: length(nm) },
          { text: length(setting) },
          { text: howRead(job, reading) },
          { text: taken?.celsius == null ? '' : String(taken.celsius) },
          { text: by },
          { text: '', at },
        ];
        return { key: id, cells };
      }),
    },
  ];
}

/** The parts of a feature that were read under a calibration which was found wrong, by instrument. */
function readWithWrong(
  { job, readings }: MeasuringFacts,
  feature: Feature,
): { readonly instrument: string; readonly parts: readonly string[] }[] {
  const found = new Map<string, Set<number>>();
  for (const reading of readings) {
    if (reading.feature !== feature || reading.nm === null) continue;
    const { key, wrong } = instrumentThen(job, reading);
    if (wrong !== null) found.set(key, (found.get(key) ?? new Set()).add(reading.station));
  }
  return [...found].map(([key, parts]) => ({
    instrument: instrumentWords(job, key),
    parts: [...parts].sort((one, other) => one - other).map((number) => partName(feature, number)),
  }));
}

/** True if the caps were on as they must be while the housings were read. */
function capsFact({ job, readings }: MeasuringFacts, feature: Feature): SheetBlock[] {
  const { role, words } = FEATURE_TABLE[feature];
  if (role !== 'housing' || !readings.some((one) => one.feature === feature && one.nm !== null)) return [];
  const said = capsOn(job, feature);
  const label = `Caps while reading ${words}`;
  if (!said) return [{ kind: 'fact', label, text: 'not confirmed' }];
  return [
    {
      kind: 'fact',
      label,
      text: `in place, lubricated, torqued: ${said.by}`,
      at: said.at,
    },
  ];
}

/** Main bores that are off the line of their neighbours, as notes below the sheet. */
function lineNotes({ job, readings }: MeasuringFacts, feature: Feature): SheetBlock[] {
  if (feature !== 'mainBore') return [];
  return readingDoubts(job, readings, feature).flatMap((doubt): SheetBlock[] => {
    if (doubt.kind !== 'off-line') return [];
    return [
      {
        kind: 'note',
        text: `Check bore ${partName(feature, doubt.part)}: ${offLineWords(doubt, job.unit)}; limit ${lengthText(doubt.within, job.unit)}.`,
      },
    ];
  });
}

function doubtWords({ job, readings }: MeasuringFacts, reading: Reading): string {
  if (adriftReadings(job, readings).has(reading)) {
    return `was read while ${instrumentWords(job, readWith(job, reading))} moved between two zero checks`;
  }
  if (reading.nm === null) return reading.taken?.needle === null ? 'waits for the needle’s way' : 'is no size yet';
  return isFarReading(job, readings, reading) ? 'is far from its neighbours' : 'cannot be right';
}

/** Reading one feature along the shaft, or rod by rod. */
export function measuringSlice(feature: Feature): Slice<MeasuringStage, MeasuringFacts> {
  const { stage, word, words, family } = FEATURE_TABLE[feature];
  return {
    key: stage,
    belongs: ({ features }) => features.includes(feature),
    state: (facts) => stateOf(facts, feature),
    todos: (facts) => {
      const { job, parts, doubtful } = facts;
      const doubt = doubtful.find((reading) => reading.feature === feature);
      const blocked = parts[feature].filter(({ findings }) => findings.length > 0);
      const missing = parts[feature].filter((part) => isWanting(job, part));
      const outdated = parts[feature].filter(({ isOutdated }) => isOutdated);
      const isByCap =
        job.fasteners[family].since === null && Object.values(job.assembly.swaps).some(({ part }) => part === 'cap');
      const wrong = readWithWrong(facts, feature);
      const names = (list: readonly { name: string }[]) => list.map(({ name }) => name).join(', ');
      return [
        ...(doubt
          ? [
              {
                urgency: 'amiss' as const,
                todo: `Check ${partName(feature, doubt.station)}: “${doubt.text}” ${doubtWords(facts, doubt)}`,
              },
            ]
          : []),
        ...wrong.map(({ instrument, parts: own }) => ({
          urgency: 'amiss' as const,
          todo: `Re-read the ${word} at ${own.join(', ')}: ${instrument} was found wrong`,
        })),
        ...(blocked.length > 0
          ? [
              {
                urgency: 'blocked' as const,
                todo: `${names(blocked)} outside the data sheet: read again, then machine`,
              },
            ]
          : []),
        ...(outdated.length > 0
          ? [
              {
                urgency: 'in-order' as const,
                todo: `Re-read the ${word} at ${names(outdated)}: ${isByCap ? 'caps were swapped' : 'the fasteners were changed'} since`,
              },
            ]
          : []),
        ...(missing.length > 0
          ? [{ urgency: 'in-order' as const, todo: `Read the ${word} at ${names(missing)}` }]
          : []),
      ];
    },
    sheet: (facts) => [
      ...capsFact(facts, feature),
      ...readingsBlock(facts, feature),
      ...shapeBlocks(facts, feature),
      ...lineNotes(facts, feature),
    ],
    placeWords: ([, field = '', at = '']) => {
      const of = FEATURE_TABLE[at as Feature]?.words ?? words;
      if (field === 'capsOn') return `caps while the ${of} are read`;
      return measuringPlace(field, of) ?? 'how parts are read';
    },
  };
}
