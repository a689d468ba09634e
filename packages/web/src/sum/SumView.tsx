import {
  CLEARANCE_DECIMALS,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  lengthText,
  likelyParts,
  type Nanometres,
  roughText,
  splitRange,
} from '@fettle/core';
import { Link2, Save } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { useTitle } from '../base/useTitle.js';
import { GapGauge } from '../endPlay/GapGauge.js';
import { UNIT_OPTIONS } from '../limits/options.js';
import { useClearances } from '../person/useClearances.js';
import { bothUnits } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { StateMark, StateShape } from '../ui/StateMark.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { useKeptText } from '../ui/useKeptText.js';
import { type Sum, type SumField, useSum } from './useSum.js';

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
`;

const Paper = styled.table`
  border-collapse: collapse;
  margin: 0.5rem 0;
  td { padding: 0.15rem 0; vertical-align: baseline; }
  td.figure { text-align: right; font-size: 1.35rem; min-width: 9rem; }
  td.what { padding-left: 0.9rem; color: var(--ink-soft); }
  tr.result td { border-top: 2px solid var(--ink); font-weight: 700; }
  tr.result td.figure { font-size: 2rem; line-height: 1.2; }
`;

const LABELS: Readonly<Record<SumField, string>> = {
  bore: 'Housing bore',
  journal: 'Journal',
  gauge: 'Or: gauge zeroed on the journal, bare bore',
  upper: 'Upper wall',
  lower: 'Lower wall',
  low: 'Clearance, low limit',
  high: 'Clearance, high limit',
  aim: 'Target (blank: mid-limits)',
  step: 'Wall step of the grades',
};
const ORDER: readonly SumField[] = ['bore', 'journal', 'gauge', 'step', 'upper', 'lower', 'low', 'high', 'aim'];

function SumFields({ sum }: { readonly sum: Sum }) {
  const { unit, texts, set, faults, sizes } = sum;
  return (
    <Fields>
      {ORDER.map((field) => {
        const size = sizes[field];
        return (
          <Field
            key={field}
            label={`${LABELS[field]}, ${unit}`}
            figure
            inputMode={field === 'gauge' ? 'text' : 'decimal'}
            value={texts[field]}
            onChange={(text) => {
              const range = field === 'low' || field === 'high' ? splitRange(text) : null;
              if (!range) return set(field, text);
              sum.setRange(range[0], range[1]);
            }}
            fault={faults[field] ?? null}
            hint={size === null ? ' ' : bothUnits(size, unit)}
          />
        );
      })}
    </Fields>
  );
}

/** Asks about a sum that gives no clearance: which one of its figures may have been read or typed wrong. */
function DoubtfulSum({ sum: { unit, sizes, sum, set } }: { readonly sum: Sum }) {
  const { bore, journal, upper, lower, low, high, gauge } = sizes;
  if (gauge !== null || bore === null || journal === null || upper === null || lower === null) return null;
  const limits = low !== null && high !== null && low <= high ? { low, high } : null;
  const likely = likelyParts({ bore, journal, upper, lower }, unit, limits);
  if (likely === null) return null;
  return (
    <Notice>
      <p>
        <strong>{lengthText(sum.clearance!, unit)} is no oil clearance: a figure is wrong.</strong>{' '}
        {likely.length === 0 && 'No single slip explains it: read all four again.'}
      </p>
      {likely.map(({ part, nm, question }) => (
        <p key={`${part} ${nm}`}>
          {LABELS[part]} {question}{' '}
          <Button onPress={() => set(part, formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]))}>
            It is {lengthText(nm, unit)}
          </Button>
        </p>
      ))}
    </Notice>
  );
}

/** The sum as on paper, and how it stands to the limits. */
function Result({ sum: { unit, sizes, sum } }: { readonly sum: Sum }) {
  const { room, clearance, verdict, aim, walls } = sum;
  const { shown } = useClearances(unit);
  const exact = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
  const { low, high } = sizes;
  if (room === null) {
    return <p>Type a bore and a journal, or the reading of a gauge zeroed on the journal.</p>;
  }
  return (
    <>
      <Paper aria-label="Arithmetic">
        <tbody>
          {sizes.gauge === null ? (
            <>
              <tr>
                <td className="figure">{exact(sizes.bore!)}</td>
                <td className="what">bore</td>
              </tr>
              <tr>
                <td className="figure">− {exact(sizes.journal!)}</td>
                <td className="what">journal</td>
              </tr>
            </>
          ) : (
            <tr>
              <td className="figure">{exact(sizes.gauge)}</td>
              <td className="what">the gauge, zeroed on the journal</td>
            </tr>
          )}
          {(['upper', 'lower'] as const).map((side) => (
            <tr key={side}>
              <td className="figure">− {sizes[side] === null ? '?' : exact(sizes[side])}</td>
              <td className="what">{side} wall</td>
            </tr>
          ))}
          <tr className="result">
            <td className="figure">{exact(clearance ?? room)}</td>
            <td className="what">
              {clearance === null ? 'room for both walls and the oil' : 'oil clearance'}, {unit}
              {clearance !== null && shown !== unit && `: ${roughText(clearance, shown)}`}
            </td>
          </tr>
        </tbody>
      </Paper>
      {clearance !== null && (
        <Row role="status">
          {verdict ? <StateMark state={verdict.state} /> : <span>No limits, no verdict.</span>}
          {verdict &&
            (verdict.margin >= 0
              ? `${lengthText(verdict.margin, shown)} to the ${verdict.side} limit`
              : `beyond the ${verdict.side} limit by ${lengthText(-verdict.margin as Nanometres, shown)}`)}
          {aim !== null &&
            `, ${formatLength((clearance - aim) as Nanometres, shown, CLEARANCE_DECIMALS[shown], { plus: true })} off target`}
        </Row>
      )}
      {clearance !== null && low !== null && high !== null && (
        <GapGauge
          unit={shown}
          what="Oil clearance"
          limit={{ low, high }}
          aim={aim}
          now={{ mean: clearance, spread: 0 }}
          after={null}
          others={sum.others.map((other) => other.clearance)}
        />
      )}
      {walls && (
        <p>
          Both walls together, <strong className="figure">{exact(walls.thinnest)}</strong> to{' '}
          <strong className="figure">{lengthText(walls.thickest, unit)}</strong>, are in limits; on target{' '}
          <strong className="figure">{exact(walls.best)}</strong>, twice{' '}
          <span className="figure">
            {formatLength((walls.best / 2) as Nanometres, unit, INSTRUMENT_DECIMALS[unit] + 1)}
          </span>
          .
        </p>
      )}
    </>
  );
}

function Others({ sum: { unit, sum } }: { readonly sum: Sum }) {
  if (sum.others.length === 0) return null;
  const exact = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
  return (
    <Table aria-label="Other walls">
      <thead>
        <tr>
          <th className="number">Upper, {unit}</th>
          <th className="number">Lower, {unit}</th>
          <th className="number">Clearance</th>
          <th>Verdict</th>
        </tr>
      </thead>
      <tbody>
        {sum.others.map(({ steps, upper, lower, clearance, verdict }) => (
          <tr key={steps}>
            <td className="number">{exact(upper)}</td>
            <td className="number">{exact(lower)}</td>
            <td className="number">{exact(clearance)}</td>
            <td>{verdict ? <StateMark state={verdict.state} /> : <StateShape state="chosen" size={16} />}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** A quick sum without an engine: one bore, one journal, two walls and limits. */
export function SumView() {
  useTitle('Quick calculation');
  const sum = useSum();
  const { text: name, setText: setName, settled } = useKeptText({ of: 'bench', part: 'sum', field: 'name' }, '');
  const [told, setTold] = useState<string | null>(null);
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Quick calculation</PanelTitle>
        <Row>
          <Button onPress={sum.clear}>Clear</Button>
          <Button
            onPress={() =>
              navigator.clipboard.writeText(window.location.href).then(
                () => setTold('Link copied. It opens with these figures.'),
                () => setTold(`Copy the address from the browser: ${window.location.href}`),
              )
            }
          >
            <Link2 aria-hidden size={18} />
            Copy link
          </Button>
        </Row>
      </Row>
      {told && <p role="status">{told}</p>}
      <TwoColumns>
        <div>
          <Panel>
            <div style={{ maxWidth: '14rem' }}>
              <Choice label="Units" value={sum.unit} options={UNIT_OPTIONS} onChange={sum.setUnit} />
            </div>
            <SumFields sum={sum} />
            <Quiet>Limits come from the engine maker’s data sheet. The link holds the figures.</Quiet>
          </Panel>
        </div>
        <div>
          <Panel aria-label="Result">
            <Result sum={sum} />
            <DoubtfulSum sum={sum} />
            <Others sum={sum} />
          </Panel>
          {sum.keep && (
            <Panel aria-label="Save">
              <Field label="Name of the engine" value={name} maxLength={80} onChange={setName} />
              <Row style={{ marginTop: '0.5rem' }}>
                <Button
                  $kind="primary"
                  isDisabled={name.trim() === ''}
                  onPress={() => {
                    settled('');
                    sum.keep!(name.trim());
                  }}
                >
                  <Save aria-hidden size={18} />
                  Save as an engine
                </Button>
                <Quiet>One main, with these figures as its readings.</Quiet>
              </Row>
            </Panel>
          )}
        </div>
      </TwoColumns>
    </>
  );
}
