import type { CrankLayout, ShaftShow } from '@fettle/core';
import { type ShaftGeometry, shaftGeometry } from '@fettle/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useWidth } from './useWidth.js';

const Frame = styled.div<{ $height: number }>`
  position: relative;
  height: ${({ $height }) => $height}px;
  svg { display: block; position: absolute; inset: 0; }
  .metal { fill: var(--steel); stroke: var(--steel-dark); stroke-width: 1.5; }
  .far { fill: color-mix(in srgb, var(--steel) 50%, var(--surface)); }
  .shine { stroke: var(--surface); stroke-width: 2; opacity: 0.7; }
  .seam { stroke: var(--steel-dark); stroke-width: 1; stroke-dasharray: 3 2; }
  .axis { stroke: var(--line-strong); stroke-width: 1; stroke-dasharray: 12 4 2 4; }
  .chosen { fill: var(--accent-soft); stroke: var(--accent); stroke-width: 2.5; }
  .thrust { fill: var(--brass); }
  text { font-family: var(--figures); font-size: 13px; font-weight: 700; fill: var(--ink); text-anchor: middle; }
  text.pin { font-weight: 500; fill: var(--ink-soft); font-size: 12px; }
  .main { cursor: pointer; }
  .tag { fill: var(--surface); stroke: var(--ink); stroke-width: 1.5; }
  text.mark { font-size: 14px; font-weight: 800; }
`;

interface ShaftDrawingProps {
  readonly layout: CrankLayout;
  readonly height: number;
  /** What stands in columns under the drawing. */
  readonly show?: ShaftShow;
  /** Station that is opened, `M1` or `P1`. */
  readonly selected?: string | null;
  readonly onSelect?: (station: string) => void;
  /** Marks drawn on the journals and pins, by station; those of two rods on one pin side by side. */
  readonly marks?: ReadonlyMap<string, string>;
}

const TAG_HEIGHT = 20;

/** Marks on the shaft, where they are read: under the journals of the mains, under the pins. */
function ShaftMarks({
  marks,
  shaft,
  layout,
  lowest,
}: {
  marks: ReadonlyMap<string, string>;
  shaft: ShaftGeometry;
  layout: CrankLayout;
  /** Where the lowest tag may begin. */
  lowest: number;
}) {
  const firstRod = (pin: number) => layout.pins.slice(0, pin - 1).reduce((sum, { rods }) => sum + rods, 1);
  const tags = [
    ...shaft.mains.map(({ number, x, y, width, height }) => ({
      key: `M${number}`,
      text: marks.get(`M${number}`),
      x: x + width / 2,
      y: y + height,
    })),
    ...shaft.pins.map(({ number, x, y, width, height }) => {
      const count = layout.pins[number - 1]?.rods ?? 1;
      const own = Array.from({ length: count }, (_, at) => marks.get(`P${firstRod(number) + at}`) ?? '');
      return { key: `P${number}`, text: own.join(' ').trim(), x: x + width / 2, y: y + height };
    }),
  ];
  return tags.map(({ key, text, x, y }) => {
    if (!text) return null;
    const width = 12 + 8 * text.length;
    const top = Math.min(y - 5, lowest);
    return (
      <g key={key} data-testid={`mark-${key}`}>
        <rect className="tag" x={x - width / 2} y={top} width={width} height={TAG_HEIGHT} rx={3} />
        <text className="mark" x={x} y={top + 15}>
          {text}
        </text>
      </g>
    );
  });
}

/** The crankshaft drawn from the job's own layout: mains, pins in their throws, the thrust main with its washers. */
export function ShaftDrawing({ layout, height, show = 'mains', selected = null, onSelect, marks }: ShaftDrawingProps) {
  const [frame, width] = useWidth();
  // Drawn for the width on screen; on paper the whole drawing shrinks with the page.
  const drawnWidth = Math.max(width, 200);
  const shaft = useMemo(() => shaftGeometry(layout, drawnWidth, height, show), [layout, drawnWidth, height, show]);
  const thrust = layout.thrustMain === null ? 'no thrust main given' : `thrust at main ${layout.thrustMain}`;
  const label = `Crankshaft, front at the left: ${layout.mains} mains, ${layout.pins.length} pins, ${thrust}`;
  const pins = shaft.pins.toSorted((a, b) => a.depth - b.depth);
  return (
    <Frame ref={frame} $height={height}>
      <svg
        width="100%"
        height={height}
        viewBox={`0 0 ${drawnWidth} ${height}`}
        preserveAspectRatio="xMidYMid meet"
        role="img"
        aria-label={label}
      >
        <line className="axis" x1={0} x2={drawnWidth} y1={shaft.axis} y2={shaft.axis} />
        <rect className="metal" {...shaft.nose} rx={2} />
        <rect className="metal" {...shaft.flange} rx={1} />
        {pins.map((pin) => (
          <g key={pin.number}>
            <rect
              className={pin.depth < -0.1 ? 'metal far' : 'metal'}
              x={pin.x}
              y={pin.y}
              width={pin.width}
              height={pin.height}
            />
            <line
              className="shine"
              x1={pin.x + 2}
              x2={pin.x + pin.width - 2}
              y1={pin.y + pin.height * 0.28}
              y2={pin.y + pin.height * 0.28}
            />
            {pin.split !== null && (
              <path
                className="seam"
                d={`M${pin.split} ${pin.y}v${pin.height * 0.25}M${pin.split} ${pin.y + pin.height * 0.75}v${pin.height * 0.25}`}
              />
            )}
          </g>
        ))}
        {shaft.webs.map((web) => (
          <rect key={web.x} className="metal" x={web.x} y={web.y} width={web.width} height={web.height} rx={3} />
        ))}
        {shaft.mains.map((main) => (
          // The columns below carry the same choice for the keyboard.
          <g key={main.number} className="main" onPointerUp={() => onSelect?.(`M${main.number}`)}>
            {main.isThrust && (
              <>
                <rect className="thrust" x={main.x - 6} y={main.y - 5} width={5} height={main.height + 10} />
                <rect
                  className="thrust"
                  x={main.x + main.width + 1}
                  y={main.y - 5}
                  width={5}
                  height={main.height + 10}
                />
              </>
            )}
            <rect
              className={`M${main.number}` === selected ? 'metal chosen' : 'metal'}
              x={main.x}
              y={main.y}
              width={main.width}
              height={main.height}
            />
            <text x={main.x + main.width / 2} y={shaft.axis + 5}>
              {main.width > 16 ? main.number : ''}
            </text>
          </g>
        ))}
        {marks && <ShaftMarks marks={marks} shaft={shaft} layout={layout} lowest={height - TAG_HEIGHT - 1} />}
        {pins.map((pin) => (
          <text key={pin.number} className="pin" x={pin.x + pin.width / 2} y={pin.y + pin.height / 2 + 4}>
            {pin.width > 24 ? `p${pin.number}` : ''}
          </text>
        ))}
      </svg>
    </Frame>
  );
}
