import { type JobDocument, type LineRead, lengthText, roughText, type ShaftColumn, type TakenAt } from '@fettle/core';
import styled from 'styled-components';
import { useNarrow } from '../base/useNarrow.js';
import { useOpenJob } from '../job/JobPage.js';
import { ShaftLine, type ShaftRow } from '../shaft/ShaftLine.js';
import { Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { LineCurve } from './LineCurve.js';
import { LineField } from './LineField.js';
import { type LineField as Kind, type MainLineWork, useMainLine } from './useMainLine.js';

const Lines = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(24rem, 1fr));
  gap: 0.75rem;
  @media (max-width: 640px) { grid-template-columns: minmax(0, 1fr); }
`;

const Big = styled.p`
  font-family: var(--figures);
  font-size: 2rem;
  font-weight: 700;
  line-height: 1.2;
`;

const Boxes = styled.table`
  border-collapse: collapse;
  width: 100%;
  th { text-align: left; font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); padding: 0.2rem 0.3rem; }
  td { padding: 0.15rem 0.2rem; vertical-align: top; min-width: 5.5rem; }
  input { min-height: 52px; text-align: center; padding: 0 0.2rem; }
`;

const ROWS: readonly { readonly kind: Kind; readonly label: string }[] = [
  { kind: 'height', label: 'Height off the bar' },
  { kind: 'side', label: 'To the left' },
];

const DIRECTION_TITLES = { height: 'Up and down', side: 'Sideways' } as const;

/** The boxes of each main: along the shaft, or one main below the other where the screen is narrow. */
function Entry({ job, work, rows }: { readonly job: string; readonly work: MainLineWork; readonly rows: typeof ROWS }) {
  const { names, document } = work;
  const isNarrow = useNarrow();
  const box = (kind: Kind, main: string) => (
    <td key={`${kind} ${main}`}>
      {kind === 'place' && main === names[0] ? (
        <span className="figure">0</span>
      ) : (
        <LineField job={job} work={work} kind={kind} main={main} />
      )}
    </td>
  );
  const heads = isNarrow ? rows.map(({ label }) => label) : names;
  return (
    <div style={{ overflowX: 'auto' }}>
      <Boxes aria-label={rows.map(({ label }) => label).join(', ')}>
        <thead>
          <tr>
            <th>{document.unit}</th>
            {heads.map((head) => (
              <th key={head}>{head}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {isNarrow
            ? names.map((main) => (
                <tr key={main}>
                  <th>{main}</th>
                  {rows.map(({ kind }) => box(kind, main))}
                </tr>
              ))
            : rows.map(({ kind, label }) => (
                <tr key={kind}>
                  <th>{label}</th>
                  {names.map((main) => box(kind, main))}
                </tr>
              ))}
        </tbody>
      </Boxes>
    </div>
  );
}

function limitWords({ limits, unit }: JobDocument): string {
  const { mainLine, mainNeighbours } = limits;
  const said = [
    ...(mainLine ? [`Limit of the whole line ${lengthText(mainLine.high, unit)}: ${mainLine.source}.`] : []),
    ...(mainNeighbours
      ? [`Limit of one main off its neighbours ${lengthText(mainNeighbours.high, unit)}: ${mainNeighbours.source}.`]
      : []),
  ];
  return said.length > 0 ? said.join(' ') : 'The data sheet gives no limit for the line of the mains: not judged.';
}

/** How straight the line is in one direction, drawn and judged. */
function Direction({ line, document }: { readonly line: LineRead; readonly document: JobDocument }) {
  const { unit, limits } = document;
  const text = (value: number) => roughText(value, unit);
  const zone = line.straightness.minimumZone;
  const limit = limits.mainLine;
  return (
    <Panel aria-label={`Line of the mains, ${line.direction}`}>
      <PanelTitle>{DIRECTION_TITLES[line.direction]}</PanelTitle>
      <Row>
        <Big>{text(zone)}</Big>
        {limit && <StateMark state={zone > limit.high ? 'blocked' : 'inside'} />}
      </Row>
      <Quiet>
        Between two parallel lines, the least that hold all mains (minimum zone); by least squares{' '}
        {text(line.straightness.leastSquares)}.{line.isEven && ' Mains taken as evenly spaced.'}
      </Quiet>
      <LineCurve line={line} unit={unit} />
    </Panel>
  );
}

/** What each main is off its neighbours and what bends may take from its clearance, under the shaft. */
function rowsUnder({ lines, taken, document }: MainLineWork): ShaftRow[] {
  const { unit, limits } = document;
  const limit = limits.mainNeighbours;
  const figure = (value: number) => roughText(value, unit).replace(` ${unit}`, '');
  const byMain = new Map<string, TakenAt>(taken.map((one) => [one.main, one]));
  return [
    ...lines.map(
      ({ direction, mains }): ShaftRow => ({
        key: direction,
        label: (
          <>
            Off neighbours
            <small>
              {direction === 'height' ? 'up and down' : 'sideways'}, {unit}
            </small>
          </>
        ),
        cell: ({ number }) => {
          const off = mains.find(({ main }) => main === `M${number}`)?.offNeighbours ?? null;
          if (off === null) return '·';
          const isOver = limit !== null && Math.abs(off) > limit.high;
          return (
            <>
              <strong className="figure">{figure(off)}</strong>
              {isOver && <StateMark state="blocked" />}
            </>
          );
        },
      }),
    ),
    ...(taken.length > 0
      ? [
          {
            key: 'taken',
            label: (
              <>
                Bends may take
                <small>of the clearance, {unit}</small>
              </>
            ),
            cell: ({ number }: ShaftColumn) => {
              const one = byMain.get(`M${number}`);
              if (!one) return '·';
              return (
                <span className="figure">
                  {figure(one.low)}
                  {one.high > one.low && <span style={{ display: 'block' }}>to {figure(one.high)}</span>}
                  {one.clearance !== null && <small style={{ display: 'block' }}>of {figure(one.clearance)}</small>}
                </span>
              );
            },
          },
        ]
      : []),
  ];
}

/** Whether the main bores lie in one line, read off a bar or a straight edge. */
export function MainLineView() {
  const job = useOpenJob();
  const work = useMainLine(job);
  const { document, lines, names } = work;
  return (
    <>
      {lines.length > 0 && (
        <ShaftLine
          label="Line of the mains by station"
          layout={document.layout}
          rows={rowsUnder(work)}
          drawingHeight={96}
        />
      )}
      <Panel aria-label="Read off the bar">
        <PanelTitle>Read off the bar</PanelTitle>
        <Entry job={job.id} work={work} rows={ROWS} />
        <Fold>
          <summary>
            Distances of the mains:{' '}
            {names.slice(1).every((name) => document.mainLine.place[name]?.nm != null) ? 'given' : 'taken as even'}
          </summary>
          <Entry job={job.id} work={work} rows={[{ kind: 'place', label: 'From the first main' }]} />
        </Fold>
        <Quiet>
          Lay a bar or straight edge in the bores, caps off, and read each with a dial or feelers; + is higher, or to
          the left seen from the front. {limitWords(document)}
        </Quiet>
      </Panel>
      {lines.length > 0 ? (
        <Lines>
          {lines.map((line) => (
            <Direction key={line.direction} line={line} document={document} />
          ))}
        </Lines>
      ) : (
        <Quiet>Three mains at least show whether they lie in a line.</Quiet>
      )}
      {work.taken.length > 0 && (
        <Quiet>
          Bends may take: for a stiff shaft carried by its outer mains, over a turn, with the runout that was read. A
          shaft that gives way loses less, and loads its shells more. A model; the engine maker’s limits decide.
        </Quiet>
      )}
    </>
  );
}
