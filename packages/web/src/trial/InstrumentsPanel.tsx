import {
  calibrationDue,
  formatExactLength,
  INSTRUMENT_ROLES,
  type InstrumentRole,
  type Nanometres,
  rangeOf,
  readingUncertainty,
} from '@fettle/core';
import { today } from '../base/today.js';
import { InstrumentPicker } from '../instrument/InstrumentPicker.js';
import { LengthField } from '../typing/LengthField.js';
import { WordsField } from '../typing/WordsField.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { FieldPairs, Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { spreadText } from './TrialVerdict.js';
import { TrustLine } from './TrustLine.js';
import type { TrialWork } from './useTrial.js';

const ROLE_WORDS: Readonly<Record<InstrumentRole, string>> = {
  boreGauge: 'Bore gauge',
  micrometer: 'Micrometer',
  ballMicrometer: 'Ball micrometer',
};

export const CHANCES = [
  { value: 'none', label: 'not required', least: null },
  { value: '90', label: 'at least 90 %', least: 0.9 },
  { value: '95', label: 'at least 95 %', least: 0.95 },
  { value: 'guard', label: 'a guard band of twice the uncertainty (97.7 %)', least: 0.97725 },
] as const;

interface RangeFieldProps {
  readonly job: string;
  readonly role: InstrumentRole;
  readonly work: TrialWork;
}

/** The sizes that an instrument reads, typed as a range: `50 – 75`. */
function RangeField({ job, role, work: { document, setInstrument } }: RangeFieldProps) {
  const { unit, instruments } = document;
  const { range } = instruments[role];
  const exact = (value: Nanometres) => formatExactLength(value, unit, 0);
  const stored = range ? `${exact(range.low)} – ${exact(range.high)}` : '';
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: job, part: `instrument ${role}`, field: 'range' },
    stored,
  );
  const read = text.trim() === '' ? null : rangeOf(text, unit);
  return (
    <Field
      label={`${ROLE_WORDS[role]}: reads from – to, ${unit}`}
      figure
      inputMode="text"
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={read === null || read.ok ? null : read.message}
      onBlur={() => {
        if (read !== null && !read.ok) return;
        settled(text);
        if (text !== stored) setInstrument(role, { range: read && { low: read.low, high: read.high } });
      }}
    />
  );
}

/** The instruments and how far each may be off; folded away, with what it comes to told in a line. */
export function InstrumentsPanel({ job, work }: { readonly job: string; readonly work: TrialWork }) {
  const { document, setInstrument } = work;
  const { unit, instruments } = document;
  return (
    <Panel aria-label="Instruments">
      <PanelTitle>Instruments</PanelTitle>
      {INSTRUMENT_ROLES.map((role) => {
        const one = instruments[role];
        const due = calibrationDue(one);
        const length = (field: 'resolution' | 'setting' | 'repeatability' | 'operator', label: string) => (
          <LengthField
            kept={{ of: job, part: `instrument ${role}`, field }}
            label={`${ROLE_WORDS[role]}: ${label}, ${unit}`}
            unit={unit}
            value={one[field]}
            optional={false}
            check={(value) => (value >= 0 ? null : 'Enter 0 or more.')}
            onCommit={(value) => value !== null && setInstrument(role, { [field]: value })}
          />
        );
        return (
          <Fold key={role}>
            <summary>
              {ROLE_WORDS[role]}
              {one.name !== '' && ` ${one.name}`}: one reading ± {spreadText(readingUncertainty(one, 1), unit)}
              {due !== null && due <= today() && ', due for calibration'}
            </summary>
            <FieldPairs>
              <WordsField
                job={job}
                part={`instrument ${role}`}
                field="name"
                label={`${ROLE_WORDS[role]}: name or number`}
                value={one.name}
                onCommit={(name) => setInstrument(role, { name })}
              />
              <WordsField
                job={job}
                part={`instrument ${role}`}
                field="holder"
                label={`${ROLE_WORDS[role]}: who has it`}
                value={one.holder}
                onCommit={(holder) => setInstrument(role, { holder })}
              />
              <RangeField job={job} role={role} work={work} />
              {role === 'ballMicrometer' && (
                <LengthField
                  kept={{ of: job, part: `instrument ${role}`, field: 'ball' }}
                  label={`${ROLE_WORDS[role]}: its ball, ${unit}`}
                  unit={unit}
                  value={one.ball}
                  check={(value) => (value > 0 ? null : 'Above zero.')}
                  onCommit={(ball) => setInstrument(role, { ball })}
                />
              )}
              {length('resolution', 'resolution')}
              {length('setting', 'setting, u')}
              {length('repeatability', 'repeats, u')}
              {length('operator', 'operator, u')}
              <Field
                label={`${ROLE_WORDS[role]}: calibrated on`}
                type="date"
                value={one.calibratedOn ?? ''}
                onChange={(day) => setInstrument(role, { calibratedOn: day === '' ? null : day })}
              />
              <Choice
                label={`${ROLE_WORDS[role]}: again after`}
                value={String(one.calibrateAfterMonths ?? 'none')}
                options={[
                  { value: 'none', label: 'no reminder' },
                  { value: '6', label: '6 months' },
                  { value: '12', label: '12 months' },
                  { value: '24', label: '24 months' },
                ]}
                onChange={(value) =>
                  setInstrument(role, { calibrateAfterMonths: value === 'none' ? null : Number(value) })
                }
              />
            </FieldPairs>
          </Fold>
        );
      })}
      <FieldPairs>
        <InstrumentPicker job={{ id: job, document }} use="trials" label="Shells in, clearances are read with" />
        <InstrumentPicker job={{ id: job, document }} use="walls" label="Walls are read with" />
      </FieldPairs>
      <Quiet>
        u: standard uncertainty. The starting figures are common practice for instruments in good order: enter yours.
        They give the ± beside each clearance.
      </Quiet>
      <TrustLine work={work} />
    </Panel>
  );
}
