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
  type ShaftColumn,
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

/** What stands under the shaft while choosing: what is known at each station, what is chosen, and what comes of it. */
export function choosingRows(shown: Shown): ShaftRow[] {
  const { document, clearances, halves, visible, readAgain, onOpen, stations, coded, atHand, verdicts } = shown;
  const { unit, withRods } = document;
  const scale = gaugeScale(
    visible,
    visible.map(({ id }) => verdicts.get(id)!.clearance),
    visible.flatMap(({ id }) => atHand(id).clearances.map(({ nominal }) => nominal)),
    GAUGE_HEIGHT,
  );
  const sizes = visible.flatMap(({ bore, journal }) =>
    [bore, journal].flatMap((one) => (one?.kind === 'read' ? [one.nominal] : [])),
  );
  const decimals = commonDecimals(sizes, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  const size = (value: Nanometres | undefined) => (value === undefined ? '·' : formatLength(value, unit, decimals));
  const nominals = visible.flatMap(({ id }) => verdicts.get(id)!.clearance?.nominal ?? []);
  const fine = commonDecimals(nominals, clearances, CLEARANCE_DECIMALS[clearances], FINE_DECIMALS[clearances]);
  const hasPlaces = Object.keys(document.places).length > 0;
  return [
    ...(withRods || hasPlaces
      ? [
          {
            key: 'station',
            label: 'Station',
            cell: ({ key }: ShaftColumn) => {
              const { rod, family, position } = stations.get(key)!;
              return (
                <Grade>
                  {key}
                  {FAMILY_TABLE[family].housingsMove && (
                    <small> {rod === null ? 'no rod' : rodLabel(document, rod)}</small>
                  )}
                  {position !== null && hasPlaces && <small> {position}</small>}
                </Grade>
              );
            },
          },
        ]
      : []),
    ...(visible.some(({ id, rod }) => heldAt(document, clearances, id, rod).length > 0)
      ? [
          {
            key: 'held',
            label: 'Locked',
            cell: ({ key }: ShaftColumn) => (
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
        ]
      : []),
    {
      key: 'bore',
      label: `Bore, ${unit}`,
      cell: ({ key }) => (
        <SizeOrMark size={stations.get(key)!.bore} mark={stations.get(key)!.marks.bore} text={size} unit={unit} />
      ),
    },
    {
      key: 'journal',
      label: `Journal, ${unit}`,
      cell: ({ key }) => (
        <SizeOrMark size={stations.get(key)!.journal} mark={stations.get(key)!.marks.journal} text={size} unit={unit} />
      ),
    },
    {
      key: 'gauge',
      label: (
        <>
          <span className="visually-hidden">Clearance between its limits</span>
          <GaugeAxis stations={visible} scale={scale} height={GAUGE_HEIGHT} unit={clearances} />
        </>
      ),
      cell: ({ key }) => (
        <ClearanceGauge
          station={stations.get(key)!}
          atHand={atHand(key)}
          chosen={verdicts.get(key)!.clearance}
          u={verdicts.get(key)!.u}
          predicted={verdicts.get(key)!.isMeasured ? (stations.get(key)!.tried?.predicted ?? null) : null}
          state={verdicts.get(key)!.state}
          scale={scale}
          height={GAUGE_HEIGHT}
          unit={clearances}
        />
      ),
    },
    ...(['upper', 'lower'] as const).map((side) => ({
      key: side,
      label: side === 'upper' ? 'Upper shell' : 'Lower shell',
      cell: ({ key }: ShaftColumn) => {
        const half = halves[key]?.[side];
        return (
          <Grade>
            {half ? (
              <GradeName
                name={document.shells[half.shell]?.grade ?? half.label}
                paint={paintOf(document, stations.get(key)!.family, document.shells[half.shell]?.grade ?? '')}
                size={13}
              />
            ) : (
              '·'
            )}
            <small>{half ? formatExactLength(half.wall, unit, INSTRUMENT_DECIMALS[unit]) : TO_COME}</small>
          </Grade>
        );
      },
    })),
    ...(coded.size > 0
      ? [
          {
            key: 'table',
            label: (
              <>
                By marks<small>from the table</small>
              </>
            ),
            cell: ({ key, family }: ShaftColumn) => {
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
        ]
      : []),
    {
      key: 'clearance',
      label: (
        <>
          Clearance<small>{clearances} · off target</small>
        </>
      ),
      cell: ({ key }) => {
        const { clearance } = verdicts.get(key)!;
        const { aim } = stations.get(key)!;
        if (!clearance) {
          return (
            <>
              <Big className="figure">·</Big>
              <Grade>
                <small>{TO_COME}</small>
              </Grade>
            </>
          );
        }
        const off = aim === null ? null : ((clearance.nominal - aim) as Nanometres);
        return (
          <>
            <Big className="figure" data-testid={`clearance-${key}`}>
              {formatLength(clearance.nominal, clearances, fine)}
            </Big>
            {off !== null && (
              <Grade>
                <small>{formatLength(off, clearances, fine, { plus: true })}</small>
              </Grade>
            )}
          </>
        );
      },
    },
    {
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
    },
  ];
}
