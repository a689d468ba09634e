import { CERTIFICATE_TYPES, type InstrumentView, instrumentKind, LARGEST_CERTIFICATE } from '@fettle/core';
import { FileUp } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { base64Of } from '../base/base64Of.js';
import { newId } from '../base/newId.js';
import { useBy } from '../person/useBy.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { enterDown } from '../ui/enterDown.js';
import { Field } from '../ui/Field.js';
import { FileButton } from '../ui/FileButton.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row, Table } from '../ui/Panel.js';
import { WideTable } from '../ui/WideTable.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { BLANK_POINT, type CalibrationText, calibrationOfText, isBlank, type PointText } from './calibrationText.js';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  gap: 0.25rem 0.75rem;
  margin: 0.5rem 0;
`;

const Entry = styled.div`
  margin-top: 0.5rem;
`;

const BLANK: CalibrationText = { on: '', due: '', laboratory: '', certificate: '', points: [BLANK_POINT] };

const POINT_BOXES = [
  { box: 'at', label: 'size' },
  { box: 'error', label: 'shows too much by' },
  { box: 'expanded', label: 'expanded uncertainty' },
  { box: 'factor', label: 'k' },
] as const;

/** A line for the next point is always there. */
function withBlank(points: readonly PointText[]): readonly PointText[] {
  const last = points.at(-1);
  return last === undefined || !isBlank(last) ? [...points, BLANK_POINT] : points;
}

/** A calibration typed from its certificate; points from the smallest size up. */
export function CalibrationForm({
  view: { id, instrument },
  onDone,
}: {
  readonly view: InstrumentView;
  readonly onDone: () => void;
}) {
  const by = useBy();
  const [draft, setDraft, clear] = useDraft<CalibrationText>(`calibration.${id}`);
  const [file, setFile] = useState<File | null>(null);
  const [isTried, setTried] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  // The same calibration, however often it is sent.
  const [own] = useState(newId);
  const text = draft ?? BLANK;
  const points = withBlank(text.points);
  const { unit, kind } = instrument;
  const read = calibrationOfText(text, unit);
  const faults = read.ok || !isTried ? null : read.faults;
  const set = (part: Partial<CalibrationText>) => setDraft({ ...text, ...part });
  const setPoint = (nth: number, part: Partial<PointText>) =>
    set({ points: points.map((point, at) => (at === nth ? { ...point, ...part } : point)) });
  const choose = (chosen: File) => {
    const isTaken = CERTIFICATE_TYPES.some((type) => type === chosen.type) && chosen.size <= LARGEST_CERTIFICATE;
    setFault(isTaken ? null : `“${chosen.name}” is not taken: choose a PDF, PNG or JPEG of at most 5 MB.`);
    setFile(isTaken ? chosen : null);
  };
  const save = async () => {
    setTried(true);
    setFault(null);
    if (!read.ok) return;
    try {
      const type = CERTIFICATE_TYPES.find((one) => one === file?.type);
      const kept = file && type ? { name: file.name.slice(0, 120), type, data: await base64Of(file) } : null;
      await tell('putCalibration', { id, calibration: own, body: { by, calibration: read.calibration, file: kept } });
      clear();
      onDone();
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  const compares = instrumentKind(kind).compares;
  return (
    <Entry role="group" aria-label="Calibration to enter">
      <Grid>
        <Field
          label="Calibrated on"
          type="date"
          value={text.on}
          onChange={(on) => set({ on })}
          fault={faults?.boxes.on ?? null}
        />
        <Field
          label="Next due (blank: by interval)"
          type="date"
          value={text.due}
          onChange={(due) => set({ due })}
          fault={faults?.boxes.due ?? null}
        />
        <Field
          label="By whom"
          value={text.laboratory}
          onChange={(laboratory) => set({ laboratory })}
          fault={faults?.boxes.laboratory ?? null}
        />
        <Field
          label="Certificate number"
          value={text.certificate}
          onChange={(certificate) => set({ certificate })}
          fault={faults?.boxes.certificate ?? null}
        />
      </Grid>
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
      <Quiet>
        {compares
          ? 'A dial is corrected by its travel from the setting. Below zero: towards smaller.'
          : 'Below zero: it reads low. Straight lines join the points; beyond them nothing is corrected.'}
      </Quiet>
      {fault && <Notice urgent>{fault}</Notice>}
      {faults && Object.keys(faults.points).length > 0 && <Notice urgent>Check the marked points.</Notice>}
      <Row style={{ marginTop: '0.5rem' }}>
        <FileButton label="Certificate file" accept={CERTIFICATE_TYPES.join(',')} onChoose={choose}>
          <FileUp aria-hidden size={18} />
          {file ? file.name : 'Attach certificate'}
        </FileButton>
        <Button $kind="primary" onPress={() => void save()}>
          Save calibration
        </Button>
        <Button onPress={onDone}>Close</Button>
      </Row>
    </Entry>
  );
}
