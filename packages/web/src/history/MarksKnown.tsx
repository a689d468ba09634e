import { bandShares, type KnownMarks } from '@fettle/core';
import * as d3 from 'd3';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { BehindLink } from './BehindLink.js';
import { Svg, useChart } from './chartParts.js';
import { KnownNothing } from './KnownNothing.js';
import { KnownTable } from './KnownTable.js';
import { knownLength, partsOf, percentText } from './knownText.js';
import { type Known, useKnown } from './useKnown.js';

function sharesOf(bands: KnownMarks['bands']) {
  const shares = bandShares(bands.map(({ mark, count }) => ({ key: mark, count })));
  return bands.map((band, at) => ({ ...band, share: shares[at]!.share, u: shares[at]!.u }));
}

/** Frequency of each mark, with what is known of it, against bands that are all alike. */
function MarkBars({ marks }: { readonly marks: KnownMarks }) {
  const bands = sharesOf(marks.bands);
  const { width, left, right } = useChart();
  const row = 34;
  const height = bands.length * row + 40;
  const most = Math.max(...bands.map(({ share, u }) => share + 2 * u), 1 / bands.length);
  const x = d3.scaleLinear([0, Math.min(1, most)], [left, width - right]).nice();
  const even = x(1 / bands.length);
  return (
    <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`Frequency of each mark, ${partsOf(marks.feature)}`}>
      <rect className="frame" x={left} y={4} width={width - left - right} height={bands.length * row} rx={4} />
      {bands.map(({ mark, share, u }, at) => (
        <g key={mark}>
          <text className="figure" x={left - 10} y={at * row + 26} textAnchor="end">
            {mark}
          </text>
          <rect className="bar" x={left} y={at * row + 11} width={x(share) - left} height={20} />
          <line
            className="whisker"
            x1={x(Math.max(0, share - 2 * u))}
            x2={x(Math.min(x.domain()[1]!, share + 2 * u))}
            y1={at * row + 21}
            y2={at * row + 21}
          />
        </g>
      ))}
      <line className="even" x1={even} x2={even} y1={4} y2={bands.length * row + 4} />
      {x.ticks(5).map((value) => (
        <text key={value} className="figure" x={x(value)} y={height - 12} textAnchor="middle">
          {percentText(value)}
        </text>
      ))}
    </Svg>
  );
}

function Marks({ marks, unit }: { readonly marks: KnownMarks; readonly unit: Known['unit'] }) {
  const bands = sharesOf(marks.bands);
  const parts = bands.reduce((sum, { count }) => sum + count, 0);
  const name = `${marks.type}, ${partsOf(marks.feature).toLowerCase()}`;
  return (
    <Panel aria-label={name}>
      <PanelTitle>{name}</PanelTitle>
      <MarkBars marks={marks} />
      <Quiet>
        {parts} parts. Bars: share of each mark, with what is known of it; dashed: all marks alike. A mark that was
        never seen may still come.
      </Quiet>
      <KnownTable
        label={`Marks of ${name}`}
        file="marks"
        items={bands}
        keyOf={({ mark }) => mark}
        columns={[
          { head: 'Mark', text: ({ mark }) => mark },
          {
            head: 'Parts',
            text: ({ count }) => String(count),
            cell: ({ mark, count }) => (
              <BehindLink
                to={{ what: 'mark', type: marks.type, feature: marks.feature, mark }}
                label={`mark ${mark} of ${name}`}
              >
                {count}
              </BehindLink>
            ),
            sortBy: ({ count }) => count,
            isFigure: true,
          },
          {
            head: 'Share',
            text: ({ share, u }) => `${percentText(share)} ± ${percentText(2 * u)}`,
            sortBy: ({ share }) => share,
            isFigure: true,
          },
          {
            head: `Band, ${unit}`,
            text: ({ low, high }) =>
              low === null || high === null ? '' : `${knownLength(low, unit)} to ${knownLength(high, unit)}`,
            sortBy: ({ low }) => low,
            isFigure: true,
          },
          { head: 'Read', text: ({ read }) => String(read), sortBy: ({ read }) => read, isFigure: true },
          {
            head: `Mean size, ${unit}`,
            text: ({ mean }) => knownLength(mean, unit),
            sortBy: ({ mean }) => mean,
            isFigure: true,
          },
          {
            head: `Spread, ${unit}`,
            text: ({ deviation }) => knownLength(deviation, unit),
            sortBy: ({ deviation }) => deviation,
            isFigure: true,
          },
        ]}
      />
    </Panel>
  );
}

/** How often each grade mark comes in this workshop. */
export function MarksKnown() {
  const { scope, unit } = useKnown();
  const { currentData: data, error } = api.useKnownMarksQuery(scope, { refetchOnMountOrArgChange: true });
  if (error) return <Notice urgent>{refusalInWords(error)}</Notice>;
  if (!data) return <p aria-busy>Loading …</p>;
  if (data.features.length === 0)
    return <KnownNothing>No grade marks yet: type the stamped rows of an engine.</KnownNothing>;
  return data.features.map((marks) => <Marks key={`${marks.type} ${marks.feature}`} marks={marks} unit={unit} />);
}
