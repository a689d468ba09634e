import {
  commonDecimals,
  type Feature,
  formatLength,
  INSTRUMENT_DECIMALS,
  measuredParts,
  rodLabel,
  type Slot,
} from '@fettle/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { CleanUpText } from '../codes/CleanUpText.js';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { Choice } from '../look/Choice.js';
import { Notice } from '../look/Notice.js';
import { Panel } from '../look/Panel.js';
import { StateMark } from '../look/StateMark.js';
import { ShaftLine, type ShaftRow } from '../shaft/ShaftLine.js';
import type { ShaftColumn } from '../shaft/shaftColumns.js';
import { FEATURE_WORDS, SLOT_WORDS } from './featureWords.js';
import { LengthField, lengthText } from './LengthField.js';
import { ReadingBar } from './ReadingBar.js';
import { ReadingCell, type Step } from './ReadingCell.js';
import { type Place, readingAt, useSaveReading } from './useSaveReading.js';

const Settings = styled(Panel)`
  display: grid;
  grid-template-columns: repeat(3, minmax(10rem, 1fr)) minmax(14rem, 1.1fr);
  gap: 0.25rem 1rem;
  align-items: start;
  padding: 0.75rem 1rem;
  .limits { align-self: center; font-size: var(--size-small); color: var(--ink-soft); }
`;

const BORE_SCHEMES = [
  { value: 'front', label: 'One reading, bolt direction' },
  { value: 'front,rear', label: 'Two planes, bolt direction' },
];
const JOURNAL_SCHEMES = [
  { value: 'front-0', label: 'One reading' },
  { value: 'front-0,front-90', label: 'One plane, 0° and 90°' },
  { value: 'front-0,front-90,rear-0,rear-90', label: 'Two planes, 0° and 90°' },
];
const SCHEMES: Readonly<Record<Feature, readonly { value: string; label: string }[]>> = {
  mainBore: BORE_SCHEMES,
  mainJournal: JOURNAL_SCHEMES,
  bigEnd: BORE_SCHEMES,
  pin: JOURNAL_SCHEMES,
};

/** Neighbour of a cell in the grid of slots and parts; null at the edge. */
function neighbour(
  place: Place,
  step: Step,
  slots: readonly Slot[],
  count: number,
  order: 'along' | 'down',
): Place | null {
  const rows = slots.length;
  const row = slots.indexOf(place.slot);
  const column = place.station - 1;
  const at = (r: number, c: number): Place | null =>
    r < 0 || r >= rows || c < 0 || c >= count ? null : { ...place, slot: slots[r]!, station: c + 1 };
  switch (step) {
    case 'up':
      return at(row - 1, column);
    case 'down':
      return at(row + 1, column);
    case 'left':
      return at(row, column - 1);
    case 'right':
      return at(row, column + 1);
    case 'next':
    case 'previous': {
      const index = order === 'along' ? row * count + column : column * rows + row;
      const next = index + (step === 'next' ? 1 : -1);
      if (next < 0 || next >= rows * count) return null;
      return order === 'along' ? at(Math.floor(next / count), next % count) : at(next % rows, Math.floor(next / rows));
    }
  }
}

/** Typing the bores or the journals along the shaft. */
export function MeasureView({ feature }: { readonly feature: Feature }) {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const save = useSaveReading(job);
  const { document, readings } = job;
  const { unit, layout, measuring } = document;
  const slots = measuring.slots[feature];
  const parts = useMemo(() => measuredParts(document, readings, feature), [document, readings, feature]);
  const isRod = feature === 'bigEnd' || feature === 'pin';
  const inputs = useRef(new Map<string, HTMLInputElement>());
  const [current, setCurrent] = useState<{ place: Place; text: string } | null>(null);
  const keyOf = ({ slot, station }: Place) => `${slot}:${station}`;

  const step = (place: Place, where: Step) => {
    const target = neighbour(place, where, slots, parts.length, measuring.order);
    const input = target ? inputs.current.get(keyOf(target)) : undefined;
    if (input) input.focus();
    else if (where === 'next') inputs.current.get(keyOf(place))?.blur();
  };

  // Whoever came here by "Next" starts typing in the first empty box.
  const location = useLocation();
  const firstEmpty = useRef<Place | null>(null);
  firstEmpty.current =
    slots
      .flatMap((slot) => parts.map(({ number }): Place => ({ feature, station: number, slot })))
      .find((place) => readingAt(readings, place)?.nm == null) ?? null;
  useEffect(() => {
    const isSent = (location.state as { toNext?: boolean } | null)?.toNext;
    if (isSent && firstEmpty.current)
      inputs.current.get(`${firstEmpty.current.slot}:${firstEmpty.current.station}`)?.focus();
  }, [location]);

  const means = parts.flatMap(({ size }) => size?.nominal ?? []);
  const decimals = commonDecimals(means, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  const rows: ShaftRow[] = [
    ...(isRod
      ? [
          {
            key: 'part',
            label: feature === 'bigEnd' ? 'Rod, by number' : 'Pin, from the front',
            cell: ({ number }: ShaftColumn) => (
              <strong>{feature === 'bigEnd' ? rodLabel(document, number) : `P${number}`}</strong>
            ),
          },
        ]
      : []),
    ...slots.map((slot) => ({
      key: slot,
      label: SLOT_WORDS[slot],
      cell: ({ number: station }: ShaftColumn) => {
        const place: Place = { feature, station, slot };
        return (
          <ReadingCell
            job={job}
            place={place}
            inputRef={(element) => {
              if (element) inputs.current.set(keyOf(place), element);
              else inputs.current.delete(keyOf(place));
            }}
            onStep={(where) => step(place, where)}
            onFocus={(text) => setCurrent({ place, text })}
            onText={(text) => setCurrent({ place, text })}
          />
        );
      },
    })),
    {
      key: 'size',
      label: (
        <>
          {FEATURE_WORDS[feature]}
          <small>mean, {unit}</small>
        </>
      ),
      cell: ({ number }) => {
        const { size } = parts[number - 1]!;
        return (
          <strong className="figure">
            {size && size.count > 0 ? formatLength(size.nominal, unit, decimals) : '·'}
          </strong>
        );
      },
    },
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
            {mark !== null && <small>mark {mark}</small>}
            {disagreement && (
              <Link to="../codes" style={{ display: 'block', fontSize: 'var(--size-small)', fontWeight: 600 }}>
                not as marked
              </Link>
            )}
          </span>
        );
      },
    },
  ];
  const limit = document.limits[feature];
  const isWorn =
    (feature === 'mainJournal' || feature === 'pin') &&
    document.sheet !== null &&
    parts.some(({ findings }) => findings.some(({ kind, side }) => kind === 'size' && side === 'under'));
  return (
    <>
      <ShaftLine
        layout={layout}
        rows={rows}
        show={isRod ? 'rods' : 'mains'}
        selected={current ? `${isRod ? 'P' : 'M'}${current.place.station}` : null}
      />
      {isWorn && (
        <Notice>
          <CleanUpText document={document} readings={readings} family={isRod ? 'rod' : 'main'} />
        </Notice>
      )}
      <ReadingBar
        job={job}
        place={current?.place ?? null}
        text={current?.text ?? ''}
        onTake={(text) => {
          if (!current) return;
          save(current.place, text);
          setCurrent({ ...current, text });
        }}
      />
      <Settings>
        <LengthField
          key={feature}
          kept={`setting ${feature}`}
          label={`Setting size, ${unit} (for + and − readings)`}
          unit={unit}
          value={measuring.setting[feature]}
          check={(value) => (value > 0 ? null : 'A setting size is above zero.')}
          onCommit={(value) => {
            change((old) => ({
              ...old,
              measuring: { ...old.measuring, setting: { ...old.measuring.setting, [feature]: value } },
            }));
            // Deviations typed before their setting size was known become sizes now.
            for (const reading of readings) {
              if (reading.feature === feature && reading.nm === null && reading.text !== '')
                save(reading, reading.text, value);
            }
          }}
        />
        <Choice
          label={isRod ? 'Readings at each' : 'Readings at each main'}
          value={slots.join()}
          options={SCHEMES[feature]}
          onChange={(value) =>
            change((old) => ({
              ...old,
              measuring: { ...old.measuring, slots: { ...old.measuring.slots, [feature]: value.split(',') as Slot[] } },
            }))
          }
        />
        <Choice
          label="Enter goes"
          value={measuring.order}
          options={[
            { value: 'along', label: 'along the shaft' },
            { value: 'down', label: isRod ? 'down each one' : 'down each main' },
          ]}
          onChange={(order) => change((old) => ({ ...old, measuring: { ...old.measuring, order } }))}
        />
        <p className="limits">
          {limit ? (
            <>
              Limits <span className="figure">{lengthText(limit.low, unit)}</span> to{' '}
              <span className="figure">{lengthText(limit.high, unit)}</span>, {limit.source}
            </>
          ) : (
            'No limits on the data sheet yet: nothing is judged against them.'
          )}
        </p>
      </Settings>
    </>
  );
}
