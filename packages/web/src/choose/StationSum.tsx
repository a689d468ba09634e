import {
  type AcceptedChoice,
  CLEARANCE_DECIMALS,
  commonDecimals,
  type EffectiveSize,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobStation,
  type Nanometres,
  nanometres,
  offsetSource,
  roughText,
  type StationVerdict,
  spreadFigure,
  type Unit,
  warmClearance,
} from '@fettle/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';
import { Quiet } from '../ui/Panel.js';

const Sum = styled.table`
  width: 100%;
  border-collapse: collapse;
  margin: 0.4rem 0;
  td { padding: 0.12rem 0; vertical-align: baseline; }
  td.figure { text-align: right; font-size: var(--size-figure); }
  td.what { padding-left: 0.75rem; color: var(--ink-soft); font-size: var(--size-small); }
  tr.result td { border-top: 2px solid var(--ink); font-weight: 700; }
`;

function knownBy(size: EffectiveSize, mark: string | null): string {
  return size.kind === 'marked' ? `middle of mark ${mark}` : `mean of ${size.count}`;
}

interface StationSumProps {
  readonly document: JobDocument;
  readonly station: JobStation;
  readonly halves: AcceptedChoice['stations'][string] | null;
  readonly verdict: StationVerdict;
  readonly unit: Unit;
}

/** One line of the sum: its figure, and what it is. */
function Line({ figure, children, isResult = false }: { figure: string; children: ReactNode; isResult?: boolean }) {
  return (
    <tr className={isResult ? 'result' : undefined}>
      <td className="figure">{figure}</td>
      <td className="what">{children}</td>
    </tr>
  );
}

interface ArithmeticProps extends StationSumProps {
  readonly bore: EffectiveSize;
  readonly journal: EffectiveSize;
}

/** Bore − journal − walls, one below the other. */
function Arithmetic({ station, bore, journal, halves, verdict, unit }: ArithmeticProps) {
  const { clearance, offset, isMeasured, u } = verdict;
  const { shown } = useClearances(unit);
  const predicted = station.tried?.predicted ?? null;
  const summed = [bore.nominal, journal.nominal, halves?.upper.wall, halves?.lower.wall, clearance?.nominal];
  const decimals = commonDecimals(
    summed.filter((value) => value !== undefined),
    unit,
    INSTRUMENT_DECIMALS[unit],
    6,
  );
  const text = (value: Nanometres) => formatLength(value, unit, decimals);
  return (
    <Sum aria-label="Arithmetic">
      <tbody>
        <Line figure={text(bore.nominal)}>bore, {knownBy(bore, station.marks.bore)}</Line>
        <Line figure={`− ${text(journal.nominal)}`}>journal, {knownBy(journal, station.marks.journal)}</Line>
        {halves ? (
          <>
            <Line figure={`− ${text(halves.upper.wall)}`}>upper, {halves.upper.label}</Line>
            <Line figure={`− ${text(halves.lower.wall)}`}>lower, {halves.lower.label}</Line>
          </>
        ) : (
          <Line figure="− ?">two walls, nothing selected</Line>
        )}
        {offset && clearance && (
          <Line figure={`${offset.offset < 0 ? '−' : '+'} ${text(nanometres(Math.abs(offset.offset)))}`}>
            assembly offset, {offsetSource(offset)}
          </Line>
        )}
        {isMeasured && predicted !== null && <Line figure={text(predicted)}>predicted</Line>}
        {clearance && (
          <Line figure={text(clearance.nominal)} isResult>
            {u !== null && `± ${spreadFigure(u, unit)} `}
            {isMeasured ? 'measured, shells in' : 'oil clearance'}, {unit}
            {shown !== unit && `: ${roughText(clearance.nominal, shown)}`}
          </Line>
        )}
      </tbody>
    </Sum>
  );
}

/** How the clearance stands to target and limits. */
function Standing({ station, verdict, unit }: Pick<StationSumProps, 'station' | 'verdict' | 'unit'>) {
  const { clearance, judged } = verdict;
  const { shown } = useClearances(unit);
  if (!clearance) return null;
  const exact = (value: Nanometres) => formatExactLength(value, shown, CLEARANCE_DECIMALS[shown]);
  const signed = (value: Nanometres) => formatExactLength(value, shown, CLEARANCE_DECIMALS[shown], { plus: true });
  return (
    <Quiet>
      {shown !== unit && 'In thousandths: '}Tightest <span className="figure">{exact(clearance.tightest)}</span>,
      loosest <span className="figure">{exact(clearance.loosest)}</span>
      {station.aim !== null && (
        <>
          . Target <span className="figure">{exact(station.aim)}</span>, off by{' '}
          <span className="figure">{signed((clearance.nominal - station.aim) as Nanometres)}</span>
        </>
      )}
      {judged &&
        (judged.margin >= 0 ? (
          <>
            . <span className="figure">{exact(judged.margin)}</span> to the {judged.side} limit.
          </>
        ) : (
          <>
            . Beyond the {judged.side} limit by <span className="figure">{exact(-judged.margin as Nanometres)}</span>.
          </>
        ))}
    </Quiet>
  );
}

/** The sum as on paper: bore − journal − walls, and how the clearance stands to target and limits. */
export function StationSum(props: StationSumProps) {
  const { document, station, halves, verdict, unit } = props;
  const { clearance } = verdict;
  const { bore, journal } = station;
  const { shown } = useClearances(unit);
  const warm =
    clearance && halves
      ? warmClearance(document, station, clearance.nominal, [halves.upper.wall, halves.lower.wall])
      : null;
  return (
    <>
      {bore && journal ? (
        <Arithmetic {...props} bore={bore} journal={journal} />
      ) : (
        <p>
          A clearance needs a bore and a journal; {bore ? 'the journal' : journal ? 'the bore' : 'both'} is missing.
        </p>
      )}
      {clearance && warm !== null && (
        <Quiet>
          Running at {document.warm.celsius} °C: {warm < clearance.nominal ? 'down' : 'up'} to{' '}
          <span className="figure">{roughText(warm, shown)}</span>. Shells under crush change it less.
        </Quiet>
      )}
      <Standing station={station} verdict={verdict} unit={unit} />
    </>
  );
}
