import {
  type CrushRead,
  type Joint,
  type JointKind,
  lengthText,
  type Nanometres,
  sideOpening,
  type Unit,
} from '@fettle/core';
import styled from 'styled-components';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  max-height: 16rem;
  .saddle { fill: var(--steel); stroke: var(--steel-dark); }
  .cap { fill: var(--sunken); stroke: var(--steel-dark); }
  .shell { fill: none; stroke: var(--brass); stroke-width: 11; }
  .shaft { fill: var(--surface); stroke: var(--steel-dark); }
  .shim { fill: var(--brass); stroke: var(--ink); }
  .open { fill: var(--accent-soft); stroke: var(--accent); stroke-dasharray: 4 3; }
  text { font-size: 13px; fill: var(--ink); }
  text.figure { font-family: var(--figures); }
  text.soft { fill: var(--ink-soft); }
`;

/** Pixels a millimetre of shim; the gap that the feelers went into is drawn so many times wider. */
const PX_PER_MM = 18;
const WIDER = 6;

const BELOW: Readonly<Record<JointKind, string>> = {
  saddle: 'white metal, shims under the cap',
  'split-line': `gaps at the slackened side drawn ${WIDER} times wider than the shims`,
  plain: 'gaps at the slackened side, drawn large',
};

interface JointDrawingProps {
  readonly unit: Unit;
  readonly station: string;
  readonly kind: JointKind;
  readonly joint: Joint;
  readonly read: CrushRead | null;
}

/** A joint seen along the shaft: saddle above, cap below, the shim at each side, and the gap that opens where that side is slackened. */
export function JointDrawing({ unit, station, kind, joint, read }: JointDrawingProps) {
  const shim = (value: Nanometres | null) =>
    Math.min(26, Math.max(value === null ? 0 : 4, ((value ?? 0) / 1e6) * PX_PER_MM));
  const gap = (side: 'left' | 'right') => {
    const at = read?.[side];
    return at ? Math.min(22, Math.max(2, ((at.go + at.noGo) / 2 / 1e6) * PX_PER_MM * WIDER)) : 0;
  };
  const text = (value: Nanometres | null) => (value === null ? '–' : lengthText(value, unit));
  const said = (side: 'left' | 'right') => {
    const opening = sideOpening(joint[side], kind);
    return opening === null ? 'not read' : `${text(opening.go)} to ${text(opening.noGo)}`;
  };
  const label =
    kind === 'saddle'
      ? `Joint ${station}, seen along the shaft. Shims: left ${text(joint.left.shim)}, right ${text(joint.right.shim)}.`
      : `Joint ${station}, seen along the shaft. Crush: left ${said('left')}, right ${said('right')}.${kind === 'plain' ? '' : ` Shims: left ${text(joint.left.shim)}, right ${text(joint.right.shim)}.`}`;
  const line = 96;
  const sides = (['left', 'right'] as const).map((side) => ({
    side,
    thick: kind === 'plain' ? 0 : shim(joint[side].shim),
    open: kind === 'saddle' ? 0 : gap(side),
    opening: sideOpening(joint[side], kind),
  }));
  // The cap hangs as low as the thicker side needs it.
  const cap = line + Math.max(6, ...sides.map(({ thick, open }) => thick + open));
  return (
    <Svg viewBox="0 0 560 236" role="img" aria-label={label}>
      <path className="saddle" d={`M110 20h340v${line - 20}h-100a70 70 0 0 0-140 0h-100z`} />
      <path className="cap" d={`M110 ${cap}h100a70 70 0 0 0 140 0h100v92h-340z`} />
      {kind !== 'saddle' && (
        <>
          <path className="shell" d={`M216 ${line}a64 64 0 0 1 128 0`} />
          <path className="shell" d={`M216 ${cap}a64 64 0 0 0 128 0`} />
        </>
      )}
      {sides.map(({ side, thick, open, opening }) => {
        const from = side === 'left' ? 118 : 358;
        return (
          <g key={side}>
            {thick > 0 && <rect className="shim" x={from} y={line} width={84} height={thick} />}
            {open > 0 && <rect className="open" x={from} y={line + thick} width={84} height={open} />}
            <text x={from + 42} y={14} textAnchor="middle" className="soft">
              {side}
            </text>
            <text
              x={side === 'left' ? 100 : 460}
              y={line + 4}
              textAnchor={side === 'left' ? 'end' : 'start'}
              className="figure"
            >
              {kind === 'plain' ? '' : text(joint[side].shim)}
            </text>
            {opening && kind !== 'saddle' && (
              <text
                x={side === 'left' ? 100 : 460}
                y={line + 26}
                textAnchor={side === 'left' ? 'end' : 'start'}
                className="figure"
              >
                {text(opening.go)}
              </text>
            )}
            {opening && kind !== 'saddle' && (
              <text
                x={side === 'left' ? 100 : 460}
                y={line + 44}
                textAnchor={side === 'left' ? 'end' : 'start'}
                className="figure"
              >
                to {text(opening.noGo)}
              </text>
            )}
          </g>
        );
      })}
      <circle className="shaft" cx={280} cy={(line + cap) / 2} r={52} />
      <text x={280} y={(line + cap) / 2 + 5} textAnchor="middle">
        {station}
      </text>
      <text x={280} y={230} textAnchor="middle" className="soft">
        {BELOW[kind]}
      </text>
    </Svg>
  );
}
