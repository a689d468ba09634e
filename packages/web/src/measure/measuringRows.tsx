import {
  commonDecimals,
  FAMILY_TABLE,
  FEATURE_TABLE,
  type Feature,
  formatLength,
  INSTRUMENT_DECIMALS,
  type Nanometres,
  nanometres,
  partName,
  rodLabel,
  type ShaftColumn,
  slotKey,
  slotName,
  workedOutText,
} from '@fettle/core';
import { Link } from 'react-router';
import type { OpenJob } from '../job/useJob.js';
import type { ShaftRow } from '../shaft/ShaftLine.js';
import { StateMark } from '../ui/StateMark.js';
import { ReadingCell } from './ReadingCell.js';
import { readingVerdictKey } from './readingVerdictKey.js';
import type { Measuring } from './useMeasuring.js';

/** What stands under the shaft while a feature is measured: a box a slot, the size they give, and its state. */
export function measuringRows(
  job: Pick<OpenJob, 'document' | 'readings'>,
  feature: Feature,
  measuring: Pick<Measuring, 'slots' | 'parts' | 'placeAt' | 'acts' | 'latest'>,
  reason: string,
): ShaftRow[] {
  const { document } = job;
  const { unit } = document;
  const { slots, parts } = measuring;
  const readings = new Map(job.readings.map((reading) => [slotKey(reading), reading]));
  const { family, numbered, name } = FEATURE_TABLE[feature];
  // Worked out once a figure, not each time that the box in hand is another.
  const told = new Map(
    slots.flatMap((slot) =>
      parts.map(({ number: station }) => {
        const key = slotKey({ feature, station, slot });
        return [key, readingVerdictKey(job, { feature, station, slot }, readings.get(key) ?? null)] as const;
      }),
    ),
  );
  const isRod = FAMILY_TABLE[family].housingsMove;
  const isByNumber = numbered === 'by-number';
  const isWarm = job.readings.some((one) => one.feature === feature && one.taken?.celsius != null);
  const means = parts.flatMap(({ size }) => size?.nominal ?? []);
  const decimals = commonDecimals(means, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  return [
    ...(isRod
      ? [
          {
            key: 'part',
            label: isByNumber ? 'Rod, by number' : 'Crankpin, from the front',
            cell: ({ number }: ShaftColumn) => (
              <strong>{isByNumber ? rodLabel(document, number) : partName(feature, number)}</strong>
            ),
          },
        ]
      : []),
    ...slots.map((slot) => ({
      key: slot,
      label: slotName(slot),
      cell: ({ number: station }: ShaftColumn) => {
        const place = measuring.placeAt(slot, station);
        const key = slotKey(place);
        return (
          <ReadingCell
            latest={measuring.latest}
            document={document}
            place={place}
            standing={readings.get(key) ?? null}
            told={told.get(key)!}
            reason={reason}
            acts={measuring.acts}
          />
        );
      },
    })),
    {
      key: 'size',
      label: (
        <>
          {name}
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
    },
    ...(parts.some(({ correction }) => correction !== 0)
      ? [
          {
            key: 'correction',
            label: (
              <>
                Corrected
                <small>for the instrument, {unit}</small>
              </>
            ),
            cell: ({ number }: ShaftColumn) => {
              const { correction, size } = parts[number - 1]!;
              const sign = correction > 0 ? '+' : '';
              return (
                <span className="figure">
                  {size?.kind === 'read' ? `${sign}${workedOutText(correction, unit)}` : '·'}
                </span>
              );
            },
          },
        ]
      : []),
    ...(parts.some(({ shape }) => shape.oval !== null || shape.barrel !== null)
      ? [
          {
            key: 'form',
            label: (
              <>
                Form, {unit}
                <small>3 and 5 lobes not seen by two points</small>
              </>
            ),
            cell: ({ number }: ShaftColumn) => {
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
        ]
      : []),
    ...(parts.some(({ shape }) => shape.outOfRound !== null || shape.taper !== null)
      ? [
          {
            key: 'shape',
            label: (
              <>
                Out of round
                <small>and taper, {unit}</small>
              </>
            ),
            cell: ({ number }: ShaftColumn) => {
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
        ]
      : []),
    {
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
    },
  ];
}
