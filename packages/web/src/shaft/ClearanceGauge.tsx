import {
  CLEARANCE_DECIMALS,
  type ClearancesAtHand,
  COVERAGE,
  FINE_DECIMALS,
  formatLength,
  type JobStation,
  type Nanometres,
  type OilClearance,
  type ShownUnit,
  STATE_WORDS,
  type StationState,
} from '@fettle/core';
import * as d3 from 'd3';
import styled from 'styled-components';
import { StateShape } from '../ui/StateMark.js';

/** One scale for all gauges of a shaft, so that side by side they show whether it is even. */
export type GaugeScale = d3.ScaleLinear<number, number>;

const TOP = 12;
const BOTTOM = 12;

/** The span that shows the limits and every main's choice, with candidates a little beyond. */
export function gaugeScale(
  stations: readonly JobStation[],
  shown: readonly (OilClearance | null)[],
  atHand: readonly Nanometres[],
  height: number,
): GaugeScale {
  const limits = stations.flatMap((station) => (station.limits ? [station.limits.low, station.limits.high] : []));
  const wanted = shown.flatMap((clearance) => (clearance ? [clearance.tightest, clearance.loosest] : []));
  const values: number[] = limits.length > 0 ? [...limits, ...wanted] : [...wanted, ...atHand];
  const aims = stations.flatMap(({ aim }) => (aim === null ? [] : [aim]));
  const [low = 0, high = 1] = d3.extent([...values, ...aims]) as [number | undefined, number | undefined];
  const room = (high - low) * 0.18 || 10_000;
  return d3.scaleLinear([low - room, high + room], [height - BOTTOM, TOP]);
}

const Svg = styled.svg`
  display: block;
  width: 100%;
  .scale { fill: var(--sunken); }
  .within { fill: var(--surface); stroke: none; }
  .limit { stroke: var(--ink); stroke-width: 2; }
  .aim { stroke: var(--brass); stroke-width: 2; stroke-dasharray: 5 3; }
  .aim-mark { fill: var(--brass); }
  .candidate { stroke: var(--line-strong); stroke-width: 2; }
  .candidate.inside { stroke: var(--accent); }
  .known { stroke: var(--ink); stroke-width: 1.5; fill: none; }
  .predicted { stroke: var(--ink); stroke-width: 2; stroke-dasharray: 2 3; }
  .scatter { stroke: var(--ink); stroke-width: 4; }
  .needle { fill: var(--ink); stroke: var(--surface); stroke-width: 1.5; }
`;

interface ClearanceGaugeProps {
  readonly station: JobStation;
  readonly atHand: ClearancesAtHand;
  readonly chosen: OilClearance | null;
  /** Standard uncertainty of the chosen clearance, nm; null where it is not known. */
  readonly u: number | null;
  /** What was predicted, where the clearance was measured with the shells in. */
  readonly predicted: number | null;
  readonly state: StationState;
  readonly scale: GaugeScale;
  readonly height: number;
  readonly unit: ShownUnit;
}

/**
 * One main's clearance drawn: the band between the limits, the aim (dashed), what each available pair would give (ticks) and
 * the choice with its tightest and loosest.
 */
export function ClearanceGauge({
  station,
  atHand,
  chosen,
  u,
  predicted,
  state,
  scale,
  height,
  unit,
}: ClearanceGaugeProps) {
  const { limits, aim } = station;
  const text = (value: number) => formatLength(value as never, unit, CLEARANCE_DECIMALS[unit]);
  // What the drawing stands for, as finely as the line says it below.
  const fine = (value: number) => formatLength(value as never, unit, FINE_DECIMALS[unit]);
  const inRange = (value: number) => value >= scale.domain()[0]! && value <= scale.domain()[1]!;
  // There may be many hundreds: those that lie on one line are drawn as one.
  const ticks = d3.rollups(
    atHand.clearances.filter(({ nominal }) => inRange(nominal)),
    (same) => same.some(({ isInside }) => isInside),
    ({ nominal }) => Math.round(scale(nominal) * 2) / 2,
  );
  const label = [
    `${station.id}: ${STATE_WORDS[state]}.`,
    limits ? `Limits ${text(limits.low)} to ${text(limits.high)} ${unit}.` : 'No limits on the data sheet.',
    aim === null ? '' : `Target ${text(aim)}.`,
    chosen
      ? `${predicted === null ? 'Selected pair' : 'Measured'} ${fine(chosen.nominal)}, tightest ${fine(chosen.tightest)}, loosest ${fine(chosen.loosest)}.`
      : '',
    chosen && u !== null ? `Plus or minus ${text(Math.round(COVERAGE * u))}.` : '',
    `${atHand.count} ${atHand.count === 1 ? 'pair' : 'pairs'} available.`,
  ].join(' ');
  return (
    <Svg height={height} viewBox={`0 0 80 ${height}`} preserveAspectRatio="xMidYMid meet" role="img" aria-label={label}>
      <rect className="scale" x={16} width={48} y={TOP - 8} height={height - TOP - BOTTOM + 16} rx={4} />
      {limits && (
        <>
          <rect
            className="within"
            x={16}
            width={48}
            y={scale(limits.high)}
            height={scale(limits.low) - scale(limits.high)}
          />
          <line className="limit" x1={12} x2={68} y1={scale(limits.high)} y2={scale(limits.high)} />
          <line className="limit" x1={12} x2={68} y1={scale(limits.low)} y2={scale(limits.low)} />
        </>
      )}
      {ticks.map(([y, isInside]) => (
        <line
          key={y}
          className={isInside ? 'candidate inside' : 'candidate'}
          x1={isInside ? 26 : 32}
          x2={isInside ? 54 : 48}
          y1={y}
          y2={y}
        />
      ))}
      {aim !== null && (
        <>
          <line className="aim" x1={16} x2={64} y1={scale(aim)} y2={scale(aim)} />
          <path className="aim-mark" d={`M4 ${scale(aim) - 5}l9 5-9 5zM76 ${scale(aim) - 5}l-9 5 9 5z`} />
        </>
      )}
      {chosen && (
        <>
          {u !== null && (
            <path
              className="known"
              d={`M34 ${scale(chosen.nominal - COVERAGE * u)}h12m-6 0V${scale(chosen.nominal + COVERAGE * u)}m-6 0h12`}
            />
          )}
          {predicted !== null && <path className="predicted" d={`M22 ${scale(predicted)}h36`} />}
          <line className="scatter" x1={40} x2={40} y1={scale(chosen.tightest)} y2={scale(chosen.loosest)} />
          <g transform={`translate(30 ${scale(chosen.nominal) - 10})`}>
            <circle cx={10} cy={10} r={11.5} fill="var(--surface)" />
            <StateShape state={state} />
          </g>
        </>
      )}
    </Svg>
  );
}
