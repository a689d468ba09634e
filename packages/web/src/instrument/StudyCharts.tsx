import { formatLength, type StudyView, type Unit } from '@fettle/core';
import * as d3 from 'd3';
import styled from 'styled-components';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  .frame { fill: var(--sunken); }
  .zero { stroke: var(--line-strong); }
  .mean { fill: none; stroke: var(--accent); stroke-width: 1.5; }
  .dot { fill: var(--surface); stroke: var(--ink); stroke-width: 1.5; }
  text { font-size: 13px; fill: var(--ink-soft); }
  text.figure { font-family: var(--figures); fill: var(--ink); }
`;

const Legend = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem 1rem;
  margin: 0 0 0.5rem;
  padding: 0;
  list-style: none;
  font-size: var(--size-small);
  li { display: inline-flex; align-items: center; gap: 0.35rem; }
  .dot { fill: var(--surface); stroke: var(--ink); stroke-width: 1.5; }
`;

const WIDTH = 640;
const HEIGHT = 240;
const EDGE = { left: 74, right: 16, top: 14, bottom: 34 };
const SYMBOLS = [d3.symbolCircle, d3.symbolSquare, d3.symbolTriangle, d3.symbolDiamond, d3.symbolCross, d3.symbolStar];

/** One dot of a chart: where it stands, how high, and whose it is. */
interface Dot {
  readonly group: string;
  readonly nm: number;
  readonly person: number;
}

interface DotsProps {
  readonly label: string;
  readonly groups: readonly string[];
  readonly dots: readonly Dot[];
  readonly unit: Unit;
  /** Names under the groups are left out where there is no room. */
  readonly shift: number;
}

/** Dots in columns, people told apart by shape, with the mean of each column. */
function Dots({ label, groups, dots, unit, shift }: DotsProps) {
  const x = d3.scalePoint(groups, [EDGE.left + 30, WIDTH - EDGE.right - 30]);
  const [low = 0, high = 0] = d3.extent(dots, ({ nm }) => nm) as [number | undefined, number | undefined];
  const room = Math.max((high - low) * 0.12, 500);
  const y = d3.scaleLinear([low - room, high + room], [HEIGHT - EDGE.bottom, EDGE.top]);
  const text = (value: number) => formatLength(Math.round(value) as never, unit, unit === 'mm' ? 4 : 5);
  const means = groups.map((group) => ({
    group,
    nm: d3.mean(
      dots.filter((dot) => dot.group === group),
      ({ nm }) => nm,
    ),
  }));
  const path = d3.line<{ group: string; nm: number }>(
    ({ group }) => x(group)!,
    ({ nm }) => y(nm),
  );
  return (
    <Svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={label}>
      <rect
        className="frame"
        x={EDGE.left}
        y={EDGE.top}
        width={WIDTH - EDGE.left - EDGE.right}
        height={HEIGHT - EDGE.top - EDGE.bottom}
        rx={4}
      />
      {y.ticks(4).map((value) => (
        <text key={value} className="figure" x={EDGE.left - 8} y={y(value) + 4} textAnchor="end">
          {text(value)}
        </text>
      ))}
      <path
        className="mean"
        d={path(means.flatMap(({ group, nm }) => (nm === undefined ? [] : [{ group, nm }]))) ?? ''}
      />
      {dots.map(({ group, nm, person }, at) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: a dot is its place in the list
          key={at}
          className="dot"
          transform={`translate(${x(group)! + (person - shift) * 9} ${y(nm)})`}
          d={d3.symbol(SYMBOLS[person % SYMBOLS.length], 55)() ?? ''}
        />
      ))}
      {groups.map((group) => (
        <text key={group} x={x(group)} y={HEIGHT - 12} textAnchor="middle">
          {group.slice(0, 8)}
        </text>
      ))}
    </Svg>
  );
}

/** The readings of a study by part, and by person as what each is off the mean of its part. */
export function StudyCharts({ view }: { readonly view: StudyView }) {
  const { plan, entries } = view;
  const means = new Map(
    plan.parts.map((part) => [
      part,
      d3.mean(
        entries.filter((one) => one.part === part),
        ({ nm }) => nm as number,
      ) ?? 0,
    ]),
  );
  const shift = (plan.people.length - 1) / 2;
  const person = (name: string) => plan.people.indexOf(name);
  return (
    <>
      <h3>By part</h3>
      <Dots
        label={`Readings by part, ${plan.parts.length} parts, ${plan.people.length} people`}
        groups={plan.parts}
        unit={plan.unit}
        shift={shift}
        dots={entries.map((one) => ({ group: one.part, nm: one.nm, person: person(one.person) }))}
      />
      <Legend>
        {plan.people.map((name, at) => (
          <li key={name}>
            <svg width={16} height={16} viewBox="-8 -8 16 16" aria-hidden>
              <path className="dot" d={d3.symbol(SYMBOLS[at % SYMBOLS.length], 55)() ?? ''} />
            </svg>
            {name}
          </li>
        ))}
      </Legend>
      <h3>By person, deviation from the part’s mean</h3>
      <Dots
        label={`Deviation of each person from the part’s mean: ${plan.people.join(', ')}`}
        groups={plan.people}
        unit={plan.unit}
        shift={0}
        dots={entries.map((one) => ({
          group: one.person,
          nm: one.nm - means.get(one.part)!,
          person: 0,
        }))}
      />
    </>
  );
}
