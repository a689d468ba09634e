import {
  commonDecimals,
  FAMILY_TABLE,
  FEATURE_TABLE,
  type Feature,
  formatLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type Nanometres,
  nanometres,
  partName,
  rodLabel,
  slotKey,
  slotName,
  type Unit,
  workedOutText,
} from '@fettle/core';
import { Link } from 'react-router';
import type { OpenJob } from '../job/useJob.js';
import type { ShaftRow } from '../shaft/ShaftLine.js';
import { StateMark } from '../ui/StateMark.js';
import { ReadingCell } from './ReadingCell.js';
import { readingVerdictKey } from './readingVerdictKey.js';
import type { Measuring } from './useMeasuring.js';

type Job = Pick<OpenJob, 'document' | 'readings'>;
type Slots = Pick<Measuring, 'slots' | 'parts' | 'placeAt' | 'acts' | 'latest'>;
type Parts = Measuring['parts'];

/** Which rod or pin a column is; mains are named by the shaft itself. */
function partRow(document: JobDocument, feature: Feature): ShaftRow[] {
  const { family, numbered } = FEATURE_TABLE[feature];
  if (!FAMILY_TABLE[family].housingsMove) return [];
  const isByNumber = numbered === 'by-number';
  return [
    {
      key: 'part',
      label: isByNumber ? 'Rod, by number' : 'Crankpin, from the front',
      cell: ({ number }) => <strong>{isByNumber ? rodLabel(document, number) : partName(feature, number)}</strong>,
    },
  ];
}

/** A box for each place that is read. */
function slotRows(job: Job, feature: Feature, measuring: Slots, reason: string): ShaftRow[] {
  const { slots, parts, latest, acts } = measuring;
  const readings = new Map(job.readings.map((reading) => [slotKey(reading), reading]));
  // Worked out once a figure, not each time that the box in hand is another.
  const told = new Map(
    slots.flatMap((slot) =>
      parts.map(({ number: station }) => {
        const key = slotKey({ feature, station, slot });
        return [key, readingVerdictKey(job, { feature, station, slot }, readings.get(key) ?? null)] as const;
      }),
    ),
  );
  return slots.map((slot) => ({
    key: slot,
    label: slotName(slot),
    cell: ({ number: station }) => {
      const place = measuring.placeAt(slot, station);
      const key = slotKey(place);
      return (
        <ReadingCell
          latest={latest}
          document={job.document}
          place={place}
          standing={readings.get(key) ?? null}
          told={told.get(key)!}
          reason={reason}
          acts={acts}
        />
      );
    },
  }));
}

/** The size that the readings of a part give. */
function sizeRow({ document, readings }: Job, feature: Feature, parts: Parts): ShaftRow {
  const { unit } = document;
  const isWarm = readings.some((one) => one.feature === feature && one.taken?.celsius != null);
  const means = parts.flatMap(({ size }) => size?.nominal ?? []);
  const decimals = commonDecimals(means, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  return {
    key: 'size',
    label: (
      <>
        {FEATURE_TABLE[feature].name}
        <small>
          mean{isWarm && ' at 20 °C'}, {unit}
        </small>
      </>
    ),
    cell: ({ number }) => {
      const { size } = parts[number - 1]!;
      return (
        <strong className="figure">{size?.kind === 'read' ? formatLength(size.nominal, unit, decimals) : '·'}</strong>
      );
    },
  };
}

/** What the instrument's calibration and drift changed, where they changed anything. */
function correctionRow(unit: Unit, parts: Parts): ShaftRow[] {
  if (parts.every(({ correction }) => correction === 0)) return [];
  return [
    {
      key: 'correction',
      label: (
        <>
          Corrected
          <small>for the instrument, {unit}</small>
        </>
      ),
      cell: ({ number }) => {
        const { correction, size } = parts[number - 1]!;
        const sign = correction > 0 ? '+' : '';
        return (
          <span className="figure">{size?.kind === 'read' ? `${sign}${workedOutText(correction, unit)}` : '·'}</span>
        );
      },
    },
  ];
}

/** Oval and barrel, where there are directions or planes enough to see them. */
function formRow(unit: Unit, parts: Parts): ShaftRow[] {
  if (parts.every(({ shape }) => shape.oval === null && shape.barrel === null)) return [];
  return [
    {
      key: 'form',
      label: (
        <>
          Form, {unit}
          <small>3 and 5 lobes not seen by two points</small>
        </>
      ),
      cell: ({ number }) => {
        const { oval, barrel } = parts[number - 1]!.shape;
        return (
          <>
            {oval && (
              <span>
                oval <span className="figure">{workedOutText(oval.swing, unit)}</span> at {Math.round(oval.at)}°
              </span>
            )}
            {barrel !== null && barrel !== 0 && (
              <small style={{ display: 'block' }}>
                {barrel > 0 ? 'barrel' : 'hourglass'}{' '}
                <span className="figure">{workedOutText(nanometres(Math.abs(barrel)), unit)}</span>
              </small>
            )}
          </>
        );
      },
    },
  ];
}

/** Out of round, and taper under it. */
function shapeRow(unit: Unit, parts: Parts): ShaftRow[] {
  if (parts.every(({ shape }) => shape.outOfRound === null && shape.taper === null)) return [];
  return [
    {
      key: 'shape',
      label: (
        <>
          Out of round
          <small>and taper, {unit}</small>
        </>
      ),
      cell: ({ number }) => {
        const { outOfRound, taper } = parts[number - 1]!.shape;
        const text = (value: Nanometres | null) => (value === null ? '·' : workedOutText(value, unit));
        return (
          <span className="figure">
            {text(outOfRound)}
            <small style={{ display: 'block' }}>{text(taper)}</small>
          </span>
        );
      },
    },
  ];
}

/** How far a part is read, and whether it is in its limits and as its mark says. */
function stateRow({ slots, parts }: Slots): ShaftRow {
  return {
    key: 'state',
    label: 'State',
    cell: ({ number }) => {
      const { findings, missing, mark, disagreement } = parts[number - 1]!;
      const isOff = findings.length > 0;
      const isDone = missing === 0;
      return (
        <span style={{ alignSelf: 'center' }}>
          <StateMark state={isOff ? 'blocked' : isDone ? 'measured' : 'not-measured'} />
          {!isDone && missing < slots.length && (
            <small style={{ display: 'block' }}>
              {slots.length - missing} of {slots.length} read
            </small>
          )}
          {mark !== null && <small> mark {mark}</small>}
          {disagreement && (
            <Link to="../codes" style={{ display: 'block', fontSize: 'var(--size-small)', fontWeight: 600 }}>
              does not match mark
            </Link>
          )}
        </span>
      );
    },
  };
}

/** What stands under the shaft while a feature is measured: a box a slot, the size they give, and its state. */
export function measuringRows(job: Job, feature: Feature, measuring: Slots, reason: string): ShaftRow[] {
  const { document } = job;
  const { parts } = measuring;
  return [
    ...partRow(document, feature),
    ...slotRows(job, feature, measuring, reason),
    sizeRow(job, feature, parts),
    ...correctionRow(document.unit, parts),
    ...formRow(document.unit, parts),
    ...shapeRow(document.unit, parts),
    stateRow(measuring),
  ];
}
