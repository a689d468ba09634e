import { type KnownWall, studentQuantile } from '@fettle/core';
import * as d3 from 'd3';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { BehindLink } from './BehindLink.js';
import { Svg, useChart } from './chartParts.js';
import { KnownNothing } from './KnownNothing.js';
import { KnownTable } from './KnownTable.js';
import { FAMILY_WORDS, HALF_WORDS, knownLength } from './knownText.js';
import { type Known, useKnown } from './useKnown.js';

/** What the mean of the walls of a grade is known to, nm, with a chance of 95 %; null of one. */
export function meanKnown({ deviation, engines }: Pick<KnownWall, 'deviation' | 'engines'>): number | null {
  return deviation === null || engines < 2
    ? null
    : (studentQuantile(0.975, engines - 1) * deviation) / Math.sqrt(engines);
}

/** True if the mean wall of a grade lies outside its band, by more than what is known of the mean. */
export function isOffBand(wall: Pick<KnownWall, 'low' | 'high' | 'mean' | 'deviation' | 'engines'>): boolean {
  const known = meanKnown(wall);
  const { low, high, mean } = wall;
  return known !== null && low !== null && high !== null && (mean - known > high || mean + known < low);
}

function wallName({ series, grade, half }: KnownWall): string {
  return `${series} ${grade}, ${HALF_WORDS[half]}`;
}

/** The walls of the grades of one series: the band of each, and what was measured, as what it is off the middle of the band. */
function WallBars({ walls, unit }: { readonly walls: readonly KnownWall[]; readonly unit: Known['unit'] }) {
  const { width, right, isNarrow } = useChart();
  const left = isNarrow ? 150 : 190;
  const row = 28;
  const known = walls.flatMap((wall) => {
    if (wall.low === null || wall.high === null) return [];
    const middle = (wall.low + wall.high) / 2;
    return [{ wall, half: (wall.high - wall.low) / 2, off: wall.mean - middle, spread: 2 * (wall.deviation ?? 0) }];
  });
  const height = known.length * row + 40;
  const reach = Math.max(...known.map(({ half, off, spread }) => Math.max(half, Math.abs(off) + spread)), 500);
  const x = d3.scaleLinear([-reach, reach], [left, width - right]).nice();
  return (
    <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label="Walls measured against the band of their grade">
      <rect className="frame" x={left} y={4} width={width - left - right} height={known.length * row} rx={4} />
      {known.map(({ wall, half, off, spread }, at) => (
        <g key={wallName(wall)}>
          <text x={left - 10} y={at * row + 22} textAnchor="end">
            {wallName(wall)}
          </text>
          <rect className="band" x={x(-half)} y={at * row + 8} width={x(half) - x(-half)} height={20} />
          <line className="whisker" x1={x(off - spread)} x2={x(off + spread)} y1={at * row + 18} y2={at * row + 18} />
          <circle className="dot" cx={x(off)} cy={at * row + 18} r={4.5} />
        </g>
      ))}
      <line className="zero" x1={x(0)} x2={x(0)} y1={4} y2={known.length * row + 4} />
      {x.ticks(5).map((value) => (
        <text key={value} className="figure" x={x(value)} y={height - 12} textAnchor="middle">
          {knownLength(value, unit, true)}
        </text>
      ))}
    </Svg>
  );
}

/** Walls that were measured, by series and grade, against the band that the grade promises. */
export function WallsKnown() {
  const { scope, unit } = useKnown();
  const { currentData: data, error } = api.useKnownWallsQuery(scope, { refetchOnMountOrArgChange: true });
  if (error) return <Notice urgent>{refusalInWords(error)}</Notice>;
  if (!data) return <p aria-busy>Loading …</p>;
  const { walls } = data;
  if (walls.length === 0)
    return <KnownNothing>No measured walls yet. Enter shell walls as you measure them.</KnownNothing>;
  const off = walls.filter(isOffBand);
  return (
    <Panel aria-label="Walls by grade">
      <PanelTitle>Walls by grade</PanelTitle>
      {off.length > 0 && (
        <Notice>
          <strong>Outside the band of their grade:</strong> {off.map(wallName).join('; ')}. Measure the next delivery
          before stocking it.
        </Notice>
      )}
      {walls.some(({ low }) => low !== null) && (
        <>
          <WallBars walls={walls} unit={unit} />
          <Quiet>Band: nominal wall of the grade. Dot and line: mean and spread of the measured walls.</Quiet>
        </>
      )}
      <KnownTable
        label="Walls by grade"
        file="walls"
        items={walls}
        keyOf={(wall) => `${wall.family} ${wallName(wall)} ${wall.low}`}
        columns={[
          { head: 'Series', text: ({ series }) => series },
          { head: 'Grade', text: ({ grade }) => grade },
          { head: 'For', text: ({ family, half }) => `${FAMILY_WORDS[family]}, ${HALF_WORDS[half]}` },
          {
            head: 'Engines',
            text: ({ engines }) => String(engines),
            cell: (wall) => (
              <BehindLink
                to={{ what: 'wall', family: wall.family, series: wall.series, grade: wall.grade, half: wall.half }}
                label={`walls of ${wallName(wall)}`}
              >
                {wall.engines}
              </BehindLink>
            ),
            sortBy: ({ engines }) => engines,
            isFigure: true,
          },
          {
            head: `Band, ${unit}`,
            text: ({ low, high }) =>
              low === null || high === null ? '' : `${knownLength(low, unit)} to ${knownLength(high, unit)}`,
            sortBy: ({ low }) => low,
            isFigure: true,
          },
          {
            head: `Mean, ${unit}`,
            text: ({ mean }) => knownLength(mean, unit),
            sortBy: ({ mean }) => mean,
            isFigure: true,
          },
          { head: `±, ${unit}`, text: (wall) => knownLength(meanKnown(wall), unit), sortBy: meanKnown, isFigure: true },
          {
            head: `Spread, ${unit}`,
            text: ({ deviation }) => knownLength(deviation, unit),
            sortBy: ({ deviation }) => deviation,
            isFigure: true,
          },
          {
            head: 'Verdict',
            text: (wall) => (isOffBand(wall) ? 'outside its band' : wall.low === null ? 'no band' : ''),
          },
        ]}
      />
    </Panel>
  );
}
