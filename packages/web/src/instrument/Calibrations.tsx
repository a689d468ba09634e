import { type Calibration, type InstrumentView, instrumentKind, lengthText } from '@fettle/core';
import { Download, Plus } from 'lucide-react';
import { useState } from 'react';
import { useBy } from '../person/useBy.js';
import { Ask } from '../ui/Ask.js';
import { Button, ButtonLink } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Fold } from '../ui/Fold.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { WideTable } from '../ui/WideTable.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { CalibrationForm } from './CalibrationForm.js';

interface CalibrationsProps {
  readonly view: InstrumentView;
  readonly mayChange: boolean;
}

/** What a calibration found, point by point. */
function Points({
  view: { instrument },
  calibration,
}: {
  readonly view: InstrumentView;
  readonly calibration: Calibration;
}) {
  const { unit } = instrument;
  if (calibration.points.length === 0) return <Quiet>No points entered: readings stay uncorrected.</Quiet>;
  return (
    <WideTable>
      <Table aria-label={`Points of the calibration of ${calibration.on}`}>
        <thead>
          <tr>
            <th className="number">{instrumentKind(instrument.kind).compares ? 'Travel' : 'Size'}</th>
            <th className="number">Reads high by</th>
            <th className="number">Expanded uncertainty</th>
            <th className="number">k</th>
          </tr>
        </thead>
        <tbody>
          {calibration.points.map(({ at, error, expanded, factor }) => (
            <tr key={at}>
              <td className="number">{lengthText(at, unit)}</td>
              <td className="number">{lengthText(error, unit)}</td>
              <td className="number">{lengthText(expanded, unit)}</td>
              <td className="number">{factor}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </WideTable>
  );
}

/** Why a calibration is not to be trusted: asked before every engine that it touched is marked. */
function Doubt({
  id,
  calibration,
  onDone,
}: {
  readonly id: string;
  readonly calibration: Calibration;
  readonly onDone: () => void;
}) {
  const by = useBy();
  const { text, setText, settled } = useKeptText({ of: id, part: calibration.id, field: 'wrong' }, '');
  const [fault, setFault] = useState<string | null>(null);
  const say = async () => {
    if (text.trim() === '') {
      setFault('Enter the reason.');
      return;
    }
    try {
      await tell('doubtCalibration', { id, calibration: calibration.id, body: { by, reason: text.trim() } });
      settled('');
      onDone();
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  return (
    <Ask aria-label={`Calibration of ${calibration.on} wrong?`}>
      <p>
        <strong>Lists every engine measured under this calibration.</strong> Each engine’s page then asks for new
        readings, and no longer corrects the old ones.
      </p>
      <Field label="Reason" value={text} onChange={setText} maxLength={200} fault={fault} autoFocus />
      <Row>
        <Button $kind="primary" onPress={() => void say()}>
          Mark as wrong
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
    </Ask>
  );
}

/** The calibrations of an instrument, the last first: points, certificate, and whether each is to be trusted. */
export function Calibrations({ view, mayChange }: CalibrationsProps) {
  const by = useBy();
  const [isAdding, setAdding] = useState(false);
  const [doubted, setDoubted] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { id, calibrations } = view;
  const trust = (calibration: string) => {
    setFault(null);
    tell('doubtCalibration', { id, calibration, body: { by, reason: null } }).catch((error: unknown) =>
      setFault(refusalInWords(error)),
    );
  };
  return (
    <Panel aria-label="Calibrations">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Calibrations</PanelTitle>
        {mayChange && (
          <Button aria-expanded={isAdding} onPress={() => setAdding(!isAdding)}>
            <Plus aria-hidden size={18} />
            Add calibration
          </Button>
        )}
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {isAdding && <CalibrationForm view={view} onDone={() => setAdding(false)} />}
      {calibrations.length === 0 && !isAdding && <Quiet>None. Readings stay uncorrected.</Quiet>}
      {[...calibrations].reverse().map((one) => (
        <Fold key={one.id}>
          <summary>
            {one.on}
            {one.laboratory !== '' && `, ${one.laboratory}`}
            {one.certificate !== '' && `, certificate ${one.certificate}`}
            {one.wrong && ': found wrong'}
          </summary>
          {one.wrong && (
            <Notice actions={mayChange && <Button onPress={() => trust(one.id)}>Mark as valid</Button>}>
              <strong>Found wrong:</strong> {one.wrong.reason} ({one.wrong.by})
            </Notice>
          )}
          <Points view={view} calibration={one} />
          <Row>
            {one.file && (
              <ButtonLink href={`/api/instruments/${id}/calibrations/${one.id}/file`} download={one.file.name}>
                <Download aria-hidden size={18} />
                {one.file.name}
              </ButtonLink>
            )}
            {mayChange && one.wrong === null && doubted !== one.id && (
              <Button $kind="quiet" onPress={() => setDoubted(one.id)}>
                Mark as wrong
              </Button>
            )}
          </Row>
          {doubted === one.id && <Doubt id={id} calibration={one} onDone={() => setDoubted(null)} />}
        </Fold>
      ))}
    </Panel>
  );
}
