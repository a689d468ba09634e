import { lengthText, type Nanometres, type Unit } from '@fettle/core';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';
import { thrustScale } from './thrustScale.js';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  max-height: 15rem;
  .block { fill: var(--steel); stroke: var(--steel-dark); }
  .shaft { fill: var(--sunken); stroke: var(--steel-dark); }
  .washer { fill: var(--brass); stroke: var(--ink); }
  .lever { stroke: var(--accent); stroke-width: 3; fill: none; }
  text { font-size: 13px; fill: var(--ink); }
  text.figure { font-family: var(--figures); }
  text.soft { fill: var(--ink-soft); }
`;

interface ThrustSectionProps {
  readonly unit: Unit;
  /** Thickness at each face; null where it is not known. */
  readonly front: Nanometres | null;
  readonly rear: Nanometres | null;
  /** Width over the flanges of a flanged shell. */
  readonly width: Nanometres | null;
  /** The end play; null where nothing was read. */
  readonly gap: Nanometres | null;
  /** What takes the thrust is part of the shells. */
  readonly isFlanged: boolean;
  readonly main: number | null;
}

/** The thrust main cut along the shaft, its front at the left, the shaft levered to the rear, so that the whole play shows at the rear face. */
export function ThrustSection({ unit, front, rear, width, gap, isFlanged, main }: ThrustSectionProps) {
  const { shown } = useClearances(unit);
  const { thick, wide, wider } = thrustScale([front, rear], gap);
  const [f, r] = [thick(front), thick(rear)];
  const open = gap === null ? 0 : wide(gap);
  const middle = 280;
  const half = 60;
  const frontFace = middle - half;
  const rearFace = middle + half;
  // Levered to the rear, the front cheek lies against the front washer; all of the play is open at the rear face.
  const frontCheek = frontFace - f;
  const rearCheek = rearFace + r + open;
  const said = (value: Nanometres | null) => (value === null ? 'not measured' : lengthText(value, shown));
  const label = [
    `Thrust main ${main ?? ''}, cut along the shaft, front at the left.`,
    isFlanged ? `Width over the flanges ${said(width)}.` : `Front face ${said(front)}, rear face ${said(rear)}.`,
    gap === null
      ? 'No readings yet.'
      : `The shaft is levered to the rear and ${lengthText(gap, shown)} is open at the rear face.`,
  ].join(' ');
  return (
    <Svg viewBox="0 0 560 208" role="img" aria-label={label}>
      <rect className="shaft" x={frontCheek - 74} y={18} width={74} height={132} rx={4} />
      <rect className="shaft" x={rearCheek} y={18} width={74} height={132} rx={4} />
      <rect className="shaft" x={frontCheek} y={64} width={rearCheek - frontCheek} height={40} />
      {[22, 108].map((y) => (
        <g key={y}>
          <rect className="block" x={frontFace} y={y} width={2 * half} height={38} />
          <rect className="washer" x={frontCheek} y={y} width={f} height={38} />
          <rect className="washer" x={rearFace} y={y} width={r} height={38} />
          {isFlanged && (
            <rect className="washer" x={frontCheek} y={y === 22 ? 54 : 106} width={f + 2 * half + r} height={8} />
          )}
        </g>
      ))}
      <text x={middle} y={46} textAnchor="middle">
        block
      </text>
      <text x={middle} y={132} textAnchor="middle">
        cap
      </text>
      <path className="lever" d={`M${frontCheek - 60} 84h44m-9-8l9 8-9 8`} />
      <text x={frontCheek - 38} y={66} textAnchor="middle" className="soft">
        levered
      </text>
      <text x={frontCheek + f / 2} y={168} textAnchor="middle" className="figure">
        {isFlanged ? '' : said(front)}
      </text>
      <text x={frontCheek + f / 2} y={184} textAnchor="middle" className="soft">
        front face
      </text>
      {isFlanged && (
        <text x={middle} y={168} textAnchor="middle" className="figure">
          {said(width)}
        </text>
      )}
      <text x={rearFace + r / 2} y={168} textAnchor="middle" className="figure">
        {isFlanged ? '' : said(rear)}
      </text>
      <text x={rearFace + r / 2} y={184} textAnchor="middle" className="soft">
        rear face
      </text>
      {gap !== null && (
        <text x={Math.min(490, rearCheek - open / 2)} y={14} textAnchor="middle" className="figure">
          {lengthText(gap, shown)}
        </text>
      )}
      <text x={middle} y={204} textAnchor="middle" className="soft">
        {gap === null ? '' : `gap drawn ${wider} times wider than the washers`}
      </text>
    </Svg>
  );
}
