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

/** The sum as on paper: bore − journal − walls, and how the clearance stands to aim and limits. */
export function StationSum({ document, station, halves, verdict, unit }: StationSumProps) {
  const { clearance, judged, offset, isMeasured, u } = verdict;
  const predicted = station.tried?.predicted ?? null;
  const warm =
    clearance && halves
      ? warmClearance(document, station, clearance.nominal, [halves.upper.wall, halves.lower.wall])
      : null;
  const { shown } = useClearances(unit);
  const exact = (value: Nanometres) => formatExactLength(value, shown, CLEARANCE_DECIMALS[shown]);
  const signed = (value: Nanometres) => formatExactLength(value, shown, CLEARANCE_DECIMALS[shown], { plus: true });
  const summed = [
    station.bore?.nominal,
    station.journal?.nominal,
    halves?.upper.wall,
    halves?.lower.wall,
    clearance?.nominal,
  ];
  const decimals = commonDecimals(
    summed.filter((value) => value !== undefined),
    unit,
    INSTRUMENT_DECIMALS[unit],
    6,
  );
  const summand = (value: Nanometres) => formatLength(value, unit, decimals);
  return (
    <>
      {station.bore && station.journal ? (
        <Sum aria-label="Arithmetic">
          <tbody>
            <tr>
              <td className="figure">{summand(station.bore.nominal)}</td>
              <td className="what">bore, {knownBy(station.bore, station.marks.bore)}</td>
            </tr>
            <tr>
              <td className="figure">− {summand(station.journal.nominal)}</td>
              <td className="what">journal, {knownBy(station.journal, station.marks.journal)}</td>
            </tr>
            {halves ? (
              <>
                <tr>
                  <td className="figure">− {summand(halves.upper.wall)}</td>
                  <td className="what">upper, {halves.upper.label}</td>
                </tr>
                <tr>
                  <td className="figure">− {summand(halves.lower.wall)}</td>
                  <td className="what">lower, {halves.lower.label}</td>
                </tr>
              </>
            ) : (
              <tr>
                <td className="figure">− ?</td>
                <td className="what">two walls, nothing selected</td>
              </tr>
            )}
            {offset && clearance && (
              <tr>
                <td className="figure">
                  {offset.offset < 0 ? '−' : '+'} {summand(nanometres(Math.abs(offset.offset)))}
                </td>
                <td className="what">assembly offset, {offsetSource(offset)}</td>
              </tr>
            )}
            {isMeasured && predicted !== null && (
              <tr>
                <td className="figure">{summand(predicted)}</td>
                <td className="what">predicted</td>
              </tr>
            )}
            {clearance && (
              <tr className="result">
                <td className="figure">{summand(clearance.nominal)}</td>
                <td className="what">
                  {u !== null && `± ${spreadFigure(u, unit)} `}
                  {isMeasured ? 'measured, shells in' : 'oil clearance'}, {unit}
                  {shown !== unit && `: ${roughText(clearance.nominal, shown)}`}
                </td>
              </tr>
            )}
          </tbody>
        </Sum>
      ) : (
        <p>
          A clearance needs a bore and a journal; {station.bore ? 'the journal' : station.journal ? 'the bore' : 'both'}{' '}
          is missing.
        </p>
      )}
      {warm !== null && (
        <Quiet>
          Running at {document.warm.celsius} °C: {warm < clearance!.nominal ? 'down' : 'up'} to{' '}
          <span className="figure">{roughText(warm, shown)}</span>. Shells under crush change it less.
        </Quiet>
      )}
      {clearance && (
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
                . Beyond the {judged.side} limit by{' '}
                <span className="figure">{exact(-judged.margin as Nanometres)}</span>.
              </>
            ))}
        </Quiet>
      )}
    </>
  );
}
