import {
  type AcceptedChoice,
  CLEARANCE_DECIMALS,
  type ClearancesAtHand,
  chanceText,
  commonDecimals,
  FAMILY_TABLE,
  FINE_DECIMALS,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobStation,
  type Nanometres,
  rodLabel,
  type ShownUnit,
  STATE_WORDS,
} from '@fettle/core';
import { Pin } from 'lucide-react';
import type { ChosenStations } from '../fit/chosenStations.js';
import { paintOf } from '../halves/paintOf.js';
import { ClearanceGauge, gaugeScale } from '../shaft/ClearanceGauge.js';
import { GaugeAxis } from '../shaft/GaugeAxis.js';
import type { ShaftRow } from '../shaft/ShaftLine.js';
import { GradeName } from '../ui/GradeSwatch.js';
import { StateShape } from '../ui/StateMark.js';
import { STOP } from '../ui/useOneStop.js';
import { Big, Chips, GAUGE_HEIGHT, Grade, heldAt, SizeOrMark, TO_COME, VerdictButton } from './choosingCells.js';

interface Shown extends ChosenStations {
  readonly document: JobDocument;
  /** What clearances are shown in. */
  readonly clearances: ShownUnit;
  readonly halves: AcceptedChoice['stations'];
  /** What the pairs at hand would give at a station. */
  readonly atHand: (station: string) => ClearancesAtHand;
  /** The stations that have a column. */
  readonly visible: readonly JobStation[];
  /** Those that were read again since the choice was accepted. */
  readonly readAgain: ReadonlySet<string>;
  readonly onOpen: (station: string) => void;
}

/** How sizes of parts are written: all of them with the same decimals. */
function sizeText({ document, visible }: Shown): (value: Nanometres | undefined) => string {
  const { unit } = document;
  const sizes = visible.flatMap(({ bore, journal }) =>
    [bore, journal].flatMap((one) => (one?.kind === 'read' ? [one.nominal] : [])),
  );
  const decimals = commonDecimals(sizes, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  return (value) => (value === undefined ? '·' : formatLength(value, unit, decimals));
}

/** Which rod and which position a column is, where the shaft alone does not say it. */
function stationRow({ document, stations }: Shown): ShaftRow[] {
  const hasPositions = Object.keys(document.places).length > 0;
  if (!document.withRods && !hasPositions) return [];
  return [
    {
      key: 'station',
      label: 'Station',
      cell: ({ key }) => {
        const { rod, family, position } = stations.get(key)!;
        return (
          <Grade>
            {key}
            {FAMILY_TABLE[family].housingsMove && <small> {rod === null ? 'no rod' : rodLabel(document, rod)}</small>}
            {position !== null && hasPositions && <small> {position}</small>}
          </Grade>
        );
      },
    },
  ];
}

/** What is locked at each station, where anything is. */
function lockedRow({ document, clearances, visible, stations }: Shown): ShaftRow[] {
  if (visible.every(({ id, rod }) => heldAt(document, clearances, id, rod).length === 0)) return [];
  return [
    {
      key: 'held',
      label: 'Locked',
      cell: ({ key }) => (
        <Chips>
          {heldAt(document, clearances, key, stations.get(key)!.rod).map((text) => (
            <span key={text}>
              <Pin aria-hidden size={12} />
              {text}
            </span>
          ))}
        </Chips>
      ),
    },
  ];
}

/** Sizes of bores and journals, or their marks. */
function sizeRows(shown: Shown): ShaftRow[] {
  const { document, stations } = shown;
  const { unit } = document;
  const text = sizeText(shown);
  return (['bore', 'journal'] as const).map((part) => ({
    key: part,
    label: `${part === 'bore' ? 'Bore' : 'Journal'}, ${unit}`,
    cell: ({ key }) => {
      const station = stations.get(key)!;
      return <SizeOrMark size={station[part]} mark={station.marks[part]} text={text} unit={unit} />;
    },
  }));
}

/** The clearance between its limits, drawn. */
function gaugeRow({ visible, stations, verdicts, atHand, clearances }: Shown): ShaftRow {
  const scale = gaugeScale(
    visible,
    visible.map(({ id }) => verdicts.get(id)!.clearance),
    visible.flatMap(({ id }) => atHand(id).clearances.map(({ nominal }) => nominal)),
    GAUGE_HEIGHT,
  );
  return {
    key: 'gauge',
    label: (
      <>
        <span className="visually-hidden">Clearance between its limits</span>
        <GaugeAxis stations={visible} scale={scale} height={GAUGE_HEIGHT} unit={clearances} />
      </>
    ),
    cell: ({ key }) => {
      const { clearance, u, isMeasured, state } = verdicts.get(key)!;
      const station = stations.get(key)!;
      return (
        <ClearanceGauge
          station={station}
          atHand={atHand(key)}
          chosen={clearance}
          u={u}
          predicted={isMeasured ? (station.tried?.predicted ?? null) : null}
          state={state}
          scale={scale}
          height={GAUGE_HEIGHT}
          unit={clearances}
        />
      );
    },
  };
}

/** Upper and lower shell: grade, and wall under it. */
function shellRows({ document, halves, stations }: Shown): ShaftRow[] {
  const { unit } = document;
  return (['upper', 'lower'] as const).map((side) => ({
    key: side,
    label: side === 'upper' ? 'Upper shell' : 'Lower shell',
    cell: ({ key }) => {
      const half = halves[key]?.[side];
      const grade = half && document.shells[half.shell]?.grade;
      return (
        <Grade>
          {half ? (
            <GradeName
              name={grade ?? half.label}
              paint={paintOf(document, stations.get(key)!.family, grade ?? '')}
              size={13}
            />
          ) : (
            '·'
          )}
          <small>{half ? formatExactLength(half.wall, unit, INSTRUMENT_DECIMALS[unit]) : TO_COME}</small>
        </Grade>
      );
    },
  }));
}

/** The grades that the selection table gives for the marks, where there is a table. */
function tableRow({ document, coded }: Shown): ShaftRow[] {
  if (coded.size === 0) return [];
  return [
    {
      key: 'table',
      label: (
        <>
          By marks<small>from the table</small>
        </>
      ),
      cell: ({ key, family }) => {
        const grades = coded.get(key)?.grades;
        const names = grades ? [...new Set([grades.upper, grades.lower])] : [];
        return names.length === 0 ? (
          <span className="figure">·</span>
        ) : (
          <Grade>
            {names.map((name) => (
              <GradeName key={name} name={name} paint={paintOf(document, family, name)} size={13} />
            ))}
          </Grade>
        );
      },
    },
  ];
}

/** The clearance in figures, and how far off target it is. */
function clearanceRow({ visible, verdicts, stations, clearances }: Shown): ShaftRow {
  const nominals = visible.flatMap(({ id }) => verdicts.get(id)!.clearance?.nominal ?? []);
  const decimals = commonDecimals(nominals, clearances, CLEARANCE_DECIMALS[clearances], FINE_DECIMALS[clearances]);
  return {
    key: 'clearance',
    label: (
      <>
        Clearance<small>{clearances} · off target</small>
      </>
    ),
    cell: ({ key }) => {
      const { clearance } = verdicts.get(key)!;
      const { aim } = stations.get(key)!;
      const off = !clearance || aim === null ? null : ((clearance.nominal - aim) as Nanometres);
      const small = clearance ? off !== null && formatLength(off, clearances, decimals, { plus: true }) : TO_COME;
      return (
        <>
          <Big className="figure" {...(clearance ? { 'data-testid': `clearance-${key}` } : {})}>
            {clearance ? formatLength(clearance.nominal, clearances, decimals) : '·'}
          </Big>
          {small !== false && (
            <Grade>
              <small>{small}</small>
            </Grade>
          )}
        </>
      );
    },
  };
}

/** The verdict of each station, which opens its detail. */
function verdictRow({ verdicts, readAgain, onOpen }: Shown): ShaftRow {
  return {
    key: 'verdict',
    label: 'Verdict',
    cell: ({ key }) => {
      const { state, inside } = verdicts.get(key)!;
      return (
        <VerdictButton
          {...STOP}
          aria-label={`${key}: ${STATE_WORDS[state]}. Open its detail`}
          onPress={() => onOpen(key)}
        >
          <StateShape state={state} />
          {STATE_WORDS[state]}
          {inside !== null && <span data-testid={`inside-${key}`}>{chanceText(inside)}</span>}
          {readAgain.has(key) && <span>re-measured since</span>}
        </VerdictButton>
      );
    },
  };
}

/** What stands under the shaft while choosing: what is known at each station, what is chosen, and what comes of it. */
export function choosingRows(shown: Shown): ShaftRow[] {
  return [
    ...stationRow(shown),
    ...lockedRow(shown),
    ...sizeRows(shown),
    gaugeRow(shown),
    ...shellRows(shown),
    ...tableRow(shown),
    clearanceRow(shown),
    verdictRow(shown),
  ];
}
