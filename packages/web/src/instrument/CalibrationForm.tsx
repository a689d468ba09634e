import { CERTIFICATE_TYPES, type InstrumentView, instrumentKind, type Unit } from '@fettle/core';
import { FileUp } from 'lucide-react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { enterDown } from '../ui/enterDown.js';
import { Field } from '../ui/Field.js';
import { FileButton } from '../ui/FileButton.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row, Table } from '../ui/Panel.js';
import { WideTable } from '../ui/WideTable.js';
import { type CalibrationEntry, useCalibrationForm } from './useCalibrationForm.js';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  gap: 0.25rem 0.75rem;
  margin: 0.5rem 0;
`;

const Entry = styled.div`
  margin-top: 0.5rem;
`;

const POINT_BOXES = [
  { box: 'at', label: 'size' },
  { box: 'error', label: 'shows too much by' },
  { box: 'expanded', label: 'expanded uncertainty' },
  { box: 'factor', label: 'k' },
] as const;

const BOXES = [
  { box: 'on', label: 'Calibrated on', type: 'date' },
  { box: 'due', label: 'Next due (blank: by interval)', type: 'date' },
  { box: 'laboratory', label: 'By whom', type: 'text' },
  { box: 'certificate', label: 'Certificate number', type: 'text' },
] as const;

interface PointsProps {
  readonly entry: CalibrationEntry;
  readonly unit: Unit;
  /** True if points are travels from the setting, not sizes. */
  readonly compares: boolean;
}

function Points({ entry: { points, faults, setPoint }, unit, compares }: PointsProps) {
  return (
    <WideTable>
      <Table aria-label="Points to enter">
        <thead>
          <tr>
            <th>
              {compares ? 'Travel from setting' : 'Size'}, {unit}
            </th>
            <th>Reads high by, {unit}</th>
            <th>Expanded uncertainty, {unit}</th>
            <th>k</th>
          </tr>
        </thead>
        <tbody>
          {points.map((point, nth) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place in the certificate
            <tr key={nth}>
              {POINT_BOXES.map(({ box, label }) => (
                <td key={box}>
                  <Field
                    label=""
                    aria-label={`Point ${nth + 1}: ${label}`}
                    figure
                    value={point[box]}
                    onChange={(value) => setPoint(nth, { [box]: value })}
                    fault={faults?.points[nth]?.[box] ?? null}
                    onKeyDown={(event) => event.key === 'Enter' && enterDown(event.currentTarget as HTMLElement)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </WideTable>
  );
}

interface CalibrationFormProps {
  readonly view: InstrumentView;
  readonly onDone: () => void;
}

/** A calibration typed from its certificate; points from the smallest size up. */
export function CalibrationForm({ view, onDone }: CalibrationFormProps) {
  const entry = useCalibrationForm(view, onDone);
  const { text, faults, set } = entry;
  const { unit, kind } = view.instrument;
  const { compares } = instrumentKind(kind);
  return (
    <Entry role="group" aria-label="Calibration to enter">
      <Grid>
        {BOXES.map(({ box, label, type }) => (
          <Field
            key={box}
            label={label}
            type={type}
            value={text[box]}
            onChange={(value) => set({ [box]: value })}
            fault={faults?.boxes[box] ?? null}
          />
        ))}
      </Grid>
      <Points entry={entry} unit={unit} compares={compares} />
      <Quiet>
        {compares
          ? 'A dial is corrected by its travel from the setting. Below zero: towards smaller.'
          : 'Below zero: it reads low. Straight lines join the points; beyond them nothing is corrected.'}
      </Quiet>
      {entry.fault && <Notice urgent>{entry.fault}</Notice>}
      {faults && Object.keys(faults.points).length > 0 && <Notice urgent>Check the marked points.</Notice>}
      <Row style={{ marginTop: '0.5rem' }}>
        <FileButton label="Certificate file" accept={CERTIFICATE_TYPES.join(',')} onChoose={entry.attach}>
          <FileUp aria-hidden size={18} />
          {entry.fileName ?? 'Attach certificate'}
        </FileButton>
        <Button $kind="primary" onPress={() => void entry.save()}>
          Save calibration
        </Button>
        <Button onPress={onDone}>Close</Button>
      </Row>
    </Entry>
  );
}
