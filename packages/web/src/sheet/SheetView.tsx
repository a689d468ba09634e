import {
  type AcceptedChoice,
  commonDecimals,
  type EffectiveSize,
  type Family,
  featuresOf,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  LIMIT_NAMES,
  limitsNeeded,
  mainStations,
  measuredParts,
  type Nanometres,
  otherUnit,
  pinnedRods,
  placedRods,
  rodLabel,
  rodStations,
  stationVerdict,
} from '@fettle/core';
import { format } from 'date-fns';
import { Printer } from 'lucide-react';
import styled from 'styled-components';
import { chanceText } from '../codes/chanceText.js';
import { useOpenJob } from '../job/JobPage.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Row } from '../look/Panel.js';
import { StateMark } from '../look/StateMark.js';
import { lengthText } from '../measure/LengthField.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';

const Paper = styled.article`
  width: 100%;
  max-width: 62rem;
  margin: 0 auto;
  padding: 1.5rem 2rem;
  background: var(--surface);
  border: var(--rule) solid var(--line-strong);
  h1 { font-size: var(--size-title); line-height: 1.15; overflow-wrap: anywhere; }
  h2 { font-size: 1.05rem; margin: 1rem 0 0.25rem; }
  table { width: 100%; border-collapse: collapse; font-size: 0.9375rem; }
  th, td { border: 1px solid var(--line-strong); padding: 0.25rem 0.4rem; text-align: left; }
  th, th.figure { font-family: var(--text); font-size: var(--size-small); }
  td.figure, th.figure { text-align: right; }
  td small { display: block; color: var(--ink-soft); font-size: var(--size-small); line-height: 1.15; }
  .facts { display: grid; grid-template-columns: repeat(3, 1fr); gap: 0.15rem 1.5rem; margin-top: 0.5rem; font-size: 0.9375rem; }
  .facts dt { display: inline; color: var(--ink-soft); }
  .facts dd { display: inline; font-weight: 600; }
  .names { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 2rem; margin-top: 2.25rem; font-size: var(--size-small); }
  .names span { border-top: 1px solid var(--ink); padding-top: 0.2rem; }
  footer { margin-top: 1rem; font-size: var(--size-small); color: var(--ink-soft); }
  @media print {
    max-width: none; padding: 0; border: 0;
    @page { size: A4; margin: 14mm; }
    tr, h2 { break-inside: avoid; }
  }
`;

const MATERIALS: Readonly<Record<JobDocument['materials']['block'], string>> = {
  iron: 'iron',
  aluminium: 'aluminium',
  steel: 'steel',
  unknown: 'not given',
};

interface StationsTableProps extends Pick<ReturnType<typeof useOpenJob>, 'document' | 'readings'> {
  readonly family: Family;
}

function StationsTable({ document, readings, family }: StationsTableProps) {
  const { unit } = document;
  const chosen: AcceptedChoice['stations'] = document.choice?.stations ?? {};
  const placed = placedRods(chosen);
  const stations =
    family === 'main'
      ? mainStations(document, readings)
      : rodStations(document, readings, { ...pinnedRods(document), ...placed });
  const sizes = stations.flatMap(({ bore, journal }) =>
    [bore, journal].flatMap((one) => (one && one.count > 0 ? [one.nominal] : [])),
  );
  const decimals = commonDecimals(sizes, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  const sized = (size: EffectiveSize | null, mark: string | null) =>
    size === null ? '' : size.count === 0 ? `mark ${mark}` : formatLength(size.nominal, unit, decimals);
  const wall = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
  const fine = (value: Nanometres | undefined) =>
    value === undefined ? '' : formatLength(value, unit, unit === 'mm' ? 4 : 5);
  return (
    <table>
      <thead>
        <tr>
          <th>{family === 'main' ? 'Main' : 'Pin, rod'}</th>
          <th className="figure">{family === 'main' ? 'Bore' : 'Big end'}</th>
          <th className="figure">{family === 'main' ? 'Journal' : 'Pin'}</th>
          <th>Upper half</th>
          <th>Lower half</th>
          <th className="figure">Aim</th>
          <th className="figure">Clearance</th>
          <th className="figure">Tightest</th>
          <th className="figure">Loosest</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {stations.map((station) => {
          const halves = chosen[station.id] ?? null;
          const { state, clearance, inside } = stationVerdict(document, station, halves);
          const half = (side: 'upper' | 'lower') => {
            if (!halves) return null;
            const shell = document.shells[halves[side].shell];
            return (
              <>
                {shell ? shell.grade : halves[side].label} <span className="figure">{wall(halves[side].wall)}</span>
                {shell && <small>{shell.series}</small>}
              </>
            );
          };
          return (
            <tr key={station.id}>
              <td>
                {station.id}
                {family === 'main' && document.layout.thrustMain === station.number ? ' (thrust)' : ''}
                {station.rod !== null && `, ${rodLabel(document, station.rod)}`}
              </td>
              <td className="figure">{sized(station.bore, station.marks.bore)}</td>
              <td className="figure">{sized(station.journal, station.marks.journal)}</td>
              <td>{half('upper')}</td>
              <td>{half('lower')}</td>
              <td className="figure">{fine(station.aim ?? undefined)}</td>
              <td className="figure">{fine(clearance?.nominal)}</td>
              <td className="figure">{fine(clearance?.tightest)}</td>
              <td className="figure">{fine(clearance?.loosest)}</td>
              <td>
                <StateMark state={state} />
                {inside !== null && <small>chance {chanceText(inside)}</small>}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Limits that are printed where the data sheet gives them: what is checked later, or on the shape of journals. */
const SHEET_LIMITS = ['outOfRound', 'taper', 'endPlay', 'runout'] as const;

function thrustWords(sheet: JobDocument['sheet']): string {
  if (!sheet || sheet.thrustKind === 'unknown') return '';
  return sheet.thrustKind === 'washers' ? ', loose washers' : ', flanged shell';
}

/** The build sheet, to be printed and kept with the engine. */
export function SheetView() {
  const job = useOpenJob();
  const { document, readings, view } = job;
  const { unit, layout, materials, choice, limits } = document;
  const isByMarks = featuresOf(document).some((feature) =>
    measuredParts(document, readings, feature).some(({ size }) => size?.count === 0),
  );
  const people = [...new Set(readings.filter(({ nm }) => nm !== null).map(({ by }) => by))].join(', ');
  const rods = layout.pins.reduce((sum, pin) => sum + pin.rods, 0);
  return (
    <>
      <Row className="no-print" style={{ justifyContent: 'space-between' }}>
        <p>
          One page for the engine's file. Sizes in {unit === 'mm' ? 'millimetres' : 'inches'}, as measured; clearances
          are predicted until a trial assembly is read.
        </p>
        <Button $kind="main" onPress={() => print()}>
          <Printer aria-hidden size={20} />
          Print the sheet
        </Button>
      </Row>
      {!choice && (
        <div className="no-print">
          <Notice>No choice is accepted yet: the sheet prints the sizes with the halves left blank.</Notice>
        </div>
      )}
      <Paper aria-label="Build sheet">
        <h1>{document.name}</h1>
        <dl className="facts">
          <div>
            <dt>Mains and rods: </dt>
            <dd>
              {layout.mains} and {rods}
            </dd>
          </div>
          <div>
            <dt>Block, caps, rods: </dt>
            <dd>
              {MATERIALS[materials.block]}, {MATERIALS[materials.caps]}, {MATERIALS[materials.rods]}
            </dd>
          </div>
          <div>
            <dt>Version: </dt>
            <dd>
              {view
                ? `${view.version}, ${format(new Date(view.updatedAt), 'd MMM yyyy HH:mm')}`
                : 'not on the server yet'}
            </dd>
          </div>
          <div>
            <dt>Measured by: </dt>
            <dd>{people || 'nobody yet'}</dd>
          </div>
          <div>
            <dt>Choice accepted: </dt>
            <dd>{choice ? `${choice.by}, ${format(new Date(choice.at), 'd MMM yyyy HH:mm')}` : 'not yet'}</dd>
          </div>
          <div>
            <dt>Thrust at: </dt>
            <dd>
              {layout.thrustMain === null ? 'not given' : `main ${layout.thrustMain}${thrustWords(document.sheet)}`}
            </dd>
          </div>
        </dl>
        <ShaftDrawing layout={layout} height={104} />
        <h2>Mains, {unit === 'mm' ? 'millimetres' : 'inches'}</h2>
        <StationsTable document={document} readings={readings} family="main" />
        {document.withRods && (
          <>
            <h2>Rods, {unit === 'mm' ? 'millimetres' : 'inches'}</h2>
            <StationsTable document={document} readings={readings} family="rod" />
          </>
        )}
        <h2>Limits</h2>
        <table>
          <thead>
            <tr>
              <th>Size</th>
              <th className="figure">Low</th>
              <th className="figure">High</th>
              <th className="figure">In {otherUnit(unit)}</th>
              <th>Source</th>
            </tr>
          </thead>
          <tbody>
            {[...limitsNeeded(document), ...SHEET_LIMITS.filter((key) => limits[key] !== null)].map((key) => {
              const limit = limits[key];
              const other = otherUnit(unit);
              const inOther = (value: Nanometres) => formatLength(value, other, other === 'in' ? 5 : 4);
              return (
                <tr key={key}>
                  <td>{LIMIT_NAMES[key]}</td>
                  <td className="figure">{limit ? lengthText(limit.low, unit) : ''}</td>
                  <td className="figure">{limit ? lengthText(limit.high, unit) : ''}</td>
                  <td className="figure">{limit ? `${inOther(limit.low)} to ${inOther(limit.high)}` : ''}</td>
                  <td>{limit ? limit.source : 'not given: not judged'}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {document.sheet !== null && document.sheet.torque.length > 0 && (
          <>
            <h2>Torque</h2>
            <table>
              <thead>
                <tr>
                  <th>Fastener</th>
                  <th>Steps</th>
                  <th>Lubricated with</th>
                  <th>Source</th>
                </tr>
              </thead>
              <tbody>
                {document.sheet.torque.map((one) => (
                  <tr key={`${one.fastener} ${one.steps}`}>
                    <td>{one.fastener}</td>
                    <td>{one.steps}</td>
                    <td>{one.lubricant || 'not given'}</td>
                    <td>{one.source}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
        <div className="names">
          <span>Fitted by, date</span>
          <span>Checked by, date</span>
          <span>Remarks</span>
        </div>
        <footer>
          {isByMarks &&
            'Where a mark stands the part was not measured: its size is the middle of what the mark stands for. '}
          Clearance = bore − journal − both walls, from mean sizes; tightest and loosest from the extreme readings. The
          figures are an aid: the engine maker's current data, local rules and licensed practice decide. Lift the crank
          with help; keep fingers clear when it turns.
        </footer>
      </Paper>
    </>
  );
}
