import {
  type AcceptedChoice,
  CLEARANCE_DECIMALS,
  type ClearancesAtHand,
  chanceText,
  commonDecimals,
  type EffectiveSize,
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
  type Unit,
  workedOutText,
} from '@fettle/core';
import { Pin } from 'lucide-react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import type { ChosenStations } from '../fit/chosenStations.js';
import { paintOf } from '../halves/paintOf.js';
import { ClearanceGauge, gaugeScale } from '../shaft/ClearanceGauge.js';
import { GaugeAxis } from '../shaft/GaugeAxis.js';
import type { ShaftRow } from '../shaft/ShaftLine.js';
import { GradeName } from '../ui/GradeSwatch.js';
import { StateShape } from '../ui/StateMark.js';
import { STOP } from '../ui/useOneStop.js';

const GAUGE_HEIGHT = 152;

const VerdictButton = styled(AriaButton)`
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 0.1rem;
  min-height: 48px;
  width: 100%;
  border: var(--rule) solid transparent;
  border-radius: var(--radius);
  background: transparent;
  color: var(--ink);
  font: inherit;
  font-size: var(--size-small);
  font-weight: 700;
  line-height: 1.1;
  cursor: pointer;
  &[data-hovered] { border-color: var(--line-strong); }
`;

const Big = styled.strong`
  font-size: clamp(0.9375rem, 20cqi, 1.3rem);
  line-height: 1.15;
`;

/** Fits seven figures into a narrow column. */
const Size = styled.span`
  font-size: clamp(0.75rem, 21cqi, 1rem);
`;

const Grade = styled.span`
  font-weight: 600;
  font-size: var(--size-small);
  line-height: 1.15;
  overflow-wrap: anywhere;
  small { display: block; font-family: var(--figures); font-weight: 400; font-size: 0.8125rem; color: var(--ink-soft); }
`;

/** Keeps the line of what the search has yet to find: nothing moves when it does. */
const TO_COME = '\u00a0';

/** A size as it was read, or the mark that stands for it while nothing is. */
function SizeOrMark({
  size,
  mark,
  text,
  unit,
}: {
  size: EffectiveSize | null;
  mark: string | null;
  text: (value: Nanometres | undefined) => string;
  unit: Unit;
}) {
  if (size?.kind !== 'marked') return <Size className="figure">{text(size?.nominal)}</Size>;
  return (
    <Grade>
      mark {mark}
      <small>±{workedOutText((size.largest - size.smallest) / 2, unit)}</small>
    </Grade>
  );
}

const Chips = styled.span`
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  gap: 0.15rem;
  span {
    display: inline-flex; align-items: center; gap: 0.15rem; padding: 0 0.3rem; border: var(--rule) solid var(--line-strong);
    border-radius: 1rem; font-size: 0.8125rem; font-weight: 600; line-height: 1.3; overflow-wrap: anywhere;
  }
`;

/** What the fitter holds or forbids at a station, and what it is aimed beside, a word or two each. */
function heldAt(
  { wishes, rods, rules, shells }: JobDocument,
  unit: ShownUnit,
  id: string,
  rod: number | null,
): string[] {
  const grade = (shell: string) => shells[shell]?.grade ?? shell;
  const wish = wishes[id];
  const extra = rules.extras[id];
  const held = wish ? [wish.upper, wish.lower] : [];
  const names = [...new Set(held.flatMap((shell) => (shell === null ? [] : [grade(shell)])))];
  return [
    ...names,
    ...(wish?.noShells ?? []).map((shell) => `not ${grade(shell)}`),
    ...(wish?.unmixed ? ['no mixed pair'] : []),
    ...(rod !== null && rods[String(rod)]?.pin != null ? ['rod locked'] : []),
    ...(extra ? [`target ${formatExactLength(extra, unit, CLEARANCE_DECIMALS[unit], { plus: true })}`] : []),
  ];
}

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
