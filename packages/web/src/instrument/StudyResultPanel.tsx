import {
  type Component,
  formatLength,
  type InstrumentView,
  nanometres,
  type StudyResult,
  type StudyView,
  toleranceShare,
} from '@fettle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { WideTable } from '../ui/WideTable.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

interface StudyResultPanelProps {
  readonly instrument: InstrumentView;
  readonly view: StudyView;
  readonly result: StudyResult;
  readonly mayChange: boolean;
}

/** What a whole study says: repeats, people, parts, and what part of all of it is reading. */
export function StudyResultPanel({ instrument, view, result, mayChange }: StudyResultPanelProps) {
  const by = useBy();
  const [fault, setFault] = useState<string | null>(null);
  const { plan, takenAt } = view;
  const text = (sd: number) => formatLength(nanometres(Math.round(sd)), plan.unit, plan.unit === 'mm' ? 4 : 5);
  const interval = ({ interval: { low, high } }: Component) => `${text(low)}–${text(high)}`;
  const { repeatability, reproducibility, interaction, gauge, part, total, percentGauge, categories } = result;
  const percent = (value: number) => `${value.toFixed(1)} %`;
  const take = async () => {
    setFault(null);
    try {
      await tell('takeStudy', { id: instrument.id, study: view.id, body: { by } });
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  const rows = [
    ['Repeats (EV)', text(repeatability.sd), interval(repeatability)],
    ['Between people (AV)', text(reproducibility.sd), interval(reproducibility)],
    ['Interaction', result.isPooled ? 'none' : text(interaction), ''],
    ['Reading (GRR)', text(gauge.sd), interval(gauge)],
    ['Between parts (PV)', text(part.sd), interval(part)],
    ['Total (TV)', text(total), ''],
  ] as const;
  return (
    <Panel aria-label="Study result">
      <PanelTitle>Study result</PanelTitle>
      <p>
        Measuring is <strong className="figure">{percentGauge === null ? 'none' : percent(percentGauge)}</strong> of the
        total variation
        {plan.tolerance !== null && (
          <>
            , and takes up <strong className="figure">{percent(toleranceShare(gauge.sd, plan.tolerance))}</strong> of
            the tolerance
          </>
        )}
        .{' '}
        {categories === null
          ? 'All readings are equal.'
          : `It can tell ${categories} ${categories === 1 ? 'size' : 'sizes'} apart among these parts.`}
      </p>
      <WideTable>
        <Table aria-label="Components of the study">
          <thead>
            <tr>
              <th>{plan.unit}</th>
              <th className="number">Standard deviation</th>
              <th className="number">95 % interval</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, value, range]) => (
              <tr key={name}>
                <td>{name}</td>
                <td className="number">{value}</td>
                <td className="number">{range}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </WideTable>
      <Quiet>
        Interaction: people differ from part to part; none where it is not significant. Analysis of variance by the
        measurement systems manual of the motor industry (from memory): it calls less than 10 % good, and more than 30 %
        not usable, and asks for 5 sizes or more. With two or three people the interval of “between people” is wide.
      </Quiet>
      {fault && <Notice urgent>{fault}</Notice>}
      <Row style={{ marginTop: '0.5rem' }}>
        {mayChange && takenAt === null && (
          <Button $kind="primary" onPress={() => void take()}>
            Use for this instrument
          </Button>
        )}
        {takenAt !== null && (
          <span>
            Taken over into the <Link to={`/instruments/${instrument.id}`}>instrument</Link>, {takenAt.slice(0, 10)}.
          </span>
        )}
      </Row>
    </Panel>
  );
}
