import { CLEARANCE_DECIMALS, formatLength, type JobStation, type Nanometres, type ShownUnit } from '@fettle/core';
import styled from 'styled-components';
import type { GaugeScale } from './ClearanceGauge.js';

const Svg = styled.svg`
  display: block;
  width: 100%;
  text { font-family: var(--figures); font-size: 12px; fill: var(--ink-soft); text-anchor: end; }
  text.word { font-family: var(--text); text-anchor: start; font-weight: 600; }
  text.aim { fill: var(--brass); font-weight: 700; }
`;

interface GaugeAxisProps {
  readonly stations: readonly JobStation[];
  readonly scale: GaugeScale;
  readonly height: number;
  readonly unit: ShownUnit;
}

/** The figures of the limits and the common aim, at the height where the gauges draw them. */
export function GaugeAxis({ stations, scale, height, unit }: GaugeAxisProps) {
  const [first = null, ...others] = stations.flatMap((station) => (station.limits ? [station.limits] : []));
  // Mains and rods with limits of their own: each gauge draws its own, and no figure holds for all.
  const limits = others.every(({ low, high }) => low === first?.low && high === first.high) ? first : null;
  const aims = stations.flatMap(({ aim }) => (aim === null ? [] : [aim]));
  const common =
    aims.length > 0
      ? aims.toSorted((a, b) => aims.filter((x) => x === b).length - aims.filter((x) => x === a).length)[0]!
      : null;
  const text = (value: Nanometres) => formatLength(value, unit, CLEARANCE_DECIMALS[unit]);
  const marks = [
    ...(limits
      ? [
          { word: 'high', value: limits.high, className: '' },
          { word: 'low', value: limits.low, className: '' },
        ]
      : []),
    ...(common === null || (first !== null && limits === null)
      ? []
      : [{ word: 'target', value: common, className: 'aim' }]),
  ];
  return (
    <Svg height={height} viewBox={`0 0 92 ${height}`} preserveAspectRatio="xMinYMid meet" aria-hidden>
      {marks.map(({ word, value, className }) => (
        <g key={word} transform={`translate(0 ${scale(value) + 4})`}>
          <text className={`word ${className}`} x={0}>
            {word}
          </text>
          <text className={className} x={90}>
            {text(value)}
          </text>
        </g>
      ))}
      {marks.length === 0 && (
        <text className="word" x={0} y={height / 2}>
          {first === null ? 'no limits' : 'clearance'}
        </text>
      )}
    </Svg>
  );
}
