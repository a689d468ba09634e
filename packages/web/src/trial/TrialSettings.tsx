import {
  calibrationDue,
  FAMILY_TABLE,
  type Family,
  type Fasteners,
  FEATURE_TABLE,
  featureOf,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  INSTRUMENT_ROLES,
  type InstrumentRole,
  lengthText,
  momentText,
  type Nanometres,
  rangeOf,
  readingUncertainty,
  SCHOOL_WORDS,
  TRIAL_SCHOOLS,
  type Unit,
} from '@fettle/core';
import { today } from '../base/today.js';
import { LengthField } from '../typing/LengthField.js';
import { NumberField } from '../typing/NumberField.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { FieldPairs, Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { api } from '../wire/api.js';
import { spreadText } from './TrialVerdict.js';
import type { TrialWork } from './useTrial.js';

const ROLE_WORDS: Readonly<Record<InstrumentRole, string>> = {
  boreGauge: 'Bore gauge',
  micrometer: 'Micrometer',
  ballMicrometer: 'Ball micrometer',
};

const CHANCES = [
  { value: 'none', label: 'not required', least: null },
  { value: '90', label: 'at least 90 %', least: 0.9 },
  { value: '95', label: 'at least 95 %', least: 0.95 },
  { value: 'guard', label: 'a guard band of twice the uncertainty (97.7 %)', least: 0.97725 },
] as const;

const KINDS: readonly { value: Fasteners['kind']; label: string }[] = [
  { value: 'unknown', label: 'Unknown' },
  { value: 'maker', label: 'The engine maker’s' },
  { value: 'other', label: 'Other maker' },
];

/** A word about something, saved when it is left. */
function Words({
  job,
  part,
  field,
  label,
  value,
  most = 60,
  onCommit,
}: {
  job: string;
  part: string;
  field: string;
  label: string;
  value: string;
  most?: number;
  onCommit: (text: string) => void;
}) {
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part, field }, value);
  return (
    <Field
      label={label}
      value={text}
      maxLength={most}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={() => {
        settled(text.trim());
        if (text.trim() !== value) onCommit(text.trim());
      }}
    />
  );
}

/** How far the figures are checked before they are believed, and how sure the choice has to be. */
export function SchoolPanel({ work }: { readonly work: TrialWork }) {
  const { document, set, setLeastChance } = work;
  const { leastChance } = document.rules;
  return (
    <Panel aria-label="Checking method">
      <PanelTitle>Checking method</PanelTitle>
      <FieldPairs>
        <Choice
          label="Trial assembly"
          value={document.trialSchool}
          options={TRIAL_SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value].name }))}
          onChange={(trialSchool) => set({ trialSchool })}
        />
        <Choice
          label="Required chance of being in limits"
          value={CHANCES.find(({ least }) => least === leastChance)?.value ?? 'none'}
          options={CHANCES}
          onChange={(value) => setLeastChance(CHANCES.find((one) => one.value === value)!.least)}
        />
      </FieldPairs>
      <Quiet style={{ marginTop: '0.4rem' }}>
        Why: {SCHOOL_WORDS[document.trialSchool].why}. Printed on the build sheet.
      </Quiet>
    </Panel>
  );
}

/** By how much changes of fasteners have moved bores in this workshop. */
function Moves({ family, unit }: { readonly family: Family; readonly unit: Unit }) {
  const { data } = api.useFastenerMovesQuery({});
  const own = data?.moves.filter((move) => move.family === family) ?? [];
  if (own.length === 0) return null;
  const signed = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit], { plus: true });
  return (
    <ul
      aria-label={`What changes of fasteners have done to ${FEATURE_TABLE[featureOf(family, 'housing')].stageName.toLowerCase()} here`}
    >
      {own.map(({ engine, fasteners, since, bores, mean, most }) => (
        <li key={`${engine} ${since}`}>
          {engine}, {fasteners || 'other fasteners'} since {momentText(since, 'day')}:{' '}
          <strong className="figure">{signed(mean)}</strong> on average of {bores}, at most{' '}
          <span className="figure">{lengthText(most, unit)}</span>.
        </li>
      ))}
    </ul>
  );
}

/** What holds the housings of a family: other fasteners, another lubricant or torque move their bores. */
export function FastenersPanel({
  job,
  family,
  work,
}: {
  readonly job: string;
  readonly family: Family;
  readonly work: TrialWork;
}) {
  const { document, setFasteners } = work;
  const held = document.fasteners[family];
  const of = FAMILY_TABLE[family].words;
  const words = (field: 'name' | 'lubricant' | 'torque', label: string) => (
    <Words
      job={job}
      part={`fasteners ${family}`}
      field={field}
      label={label}
      value={held[field]}
      onCommit={(text) => setFasteners(family, { [field]: text })}
    />
  );
  return (
    <Panel aria-label={`Fasteners of the ${of}`}>
      <PanelTitle>Fasteners of the {of}</PanelTitle>
      <FieldPairs>
        <Choice label="Maker" value={held.kind} options={KINDS} onChange={(kind) => setFasteners(family, { kind })} />
        {words('name', 'Name')}
        {words('lubricant', 'Lubricant')}
        {words('torque', 'Torque')}
      </FieldPairs>
      <Moves family={family} unit={document.unit} />
      <Quiet>
        A change moves the bores: re-measure them and repeat their trials. The engine maker’s figures decide.
      </Quiet>
    </Panel>
  );
}

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
              <Words
                job={job}
                part={`instrument ${role}`}
                field="name"
                label={`${ROLE_WORDS[role]}: name or number`}
                value={one.name}
                onCommit={(name) => setInstrument(role, { name })}
              />
              <Words
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
      <Quiet>
        u: standard uncertainty. The starting figures are common practice for instruments in good order: enter yours.
        They give the ± beside each clearance.
      </Quiet>
    </Panel>
  );
}

const MATERIALS = ['iron', 'aluminium', 'steel'] as const;

/** How warm the engine runs, and what its parts grow by: figures with their source, folded away. */
export function WarmPanel({ job, work }: { readonly job: string; readonly work: TrialWork }) {
  const { document, setWarm } = work;
  const { warm } = document;
  return (
    <Panel aria-label="Running warm">
      <Fold>
        <summary>
          Running at {warm.celsius} °C; iron {warm.iron}, aluminium {warm.aluminium}, steel {warm.steel} · 10⁻⁶/K
        </summary>
        <FieldPairs>
          <NumberField
            kept={{ of: job, part: 'warm', field: 'celsius' }}
            label="Running temperature, °C"
            value={warm.celsius}
            most={300}
            onCommit={(celsius) => setWarm({ celsius })}
          />
          {MATERIALS.map((material) => (
            <NumberField
              key={material}
              kept={{ of: job, part: 'warm', field: material }}
              label={`Expansion of ${material}, 10⁻⁶/K`}
              value={warm[material]}
              most={50}
              onCommit={(alpha) => setWarm({ [material]: alpha })}
            />
          ))}
          <Words
            job={job}
            part="warm"
            field="source"
            label="Where these come from"
            value={warm.source}
            most={200}
            onCommit={(source) => setWarm({ source })}
          />
        </FieldPairs>
      </Fold>
    </Panel>
  );
}
