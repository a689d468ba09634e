import { momentText } from '@fettle/core';
import type { ComponentProps } from 'react';
import { Controller, type Path } from 'react-hook-form';
import styled from 'styled-components';
import { MATERIAL_OPTIONS, UNIT_OPTIONS } from '../limits/options.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import type { EngineForm, NewEngineForm } from './useNewEngine.js';

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(12, 1fr);
  gap: 0.25rem 0.75rem;
  > * { grid-column: span 3; }
  > .wide { grid-column: span 6; }
  > .narrow { grid-column: span 2; }
  @media (max-width: 900px) { > *, > .narrow { grid-column: span 4; } > .wide { grid-column: span 8; } }
  @media (max-width: 640px) { > *, > .narrow { grid-column: span 6; } > .wide { grid-column: 1 / -1; } }
`;

/** A box of the form. */
function Typed({
  engine,
  name,
  ...field
}: { engine: NewEngineForm; name: Path<EngineForm> } & ComponentProps<typeof Field>) {
  return (
    <Controller
      name={name}
      control={engine.control}
      render={({ field: { value, onChange, onBlur } }) => (
        <Field {...field} value={value as string} onChange={onChange} onBlur={onBlur} />
      )}
    />
  );
}

interface ChosenProps {
  readonly engine: NewEngineForm;
  readonly name: Path<EngineForm>;
  readonly label: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  /** Left out: what the form holds. */
  readonly value?: string;
  readonly onChosen?: (value: string) => void;
}

/** A list of the form to choose from. */
function Chosen({ engine, name, label, options, value: shown, onChosen }: ChosenProps) {
  return (
    <Controller
      name={name}
      control={engine.control}
      render={({ field: { value, onChange } }) => (
        <Choice
          label={label}
          value={shown ?? (value as string)}
          options={options}
          onChange={(chosen) => {
            onChange(chosen);
            onChosen?.(chosen);
          }}
        />
      )}
    />
  );
}

/** What it starts from: an earlier build of the same engine, a data sheet of the library, or what is typed here. */
function StartFields({ engine }: { engine: NewEngineForm }) {
  const { builds, build, library } = engine;
  return (
    <>
      {builds.length > 0 && (
        <Chosen
          engine={engine}
          name="from"
          label="Earlier build to continue"
          value={build?.id ?? ''}
          options={[
            ...builds.map(({ id, name, signed }) => ({
              value: id,
              label: signed ? `${name}, signed ${momentText(signed.at, 'day')}` : `${name}, not signed`,
            })),
            { value: '', label: 'none: start from a data sheet' },
          ]}
        />
      )}
      {build === null && (
        <Chosen
          engine={engine}
          name="type"
          label="Data sheet of the library"
          options={[
            { value: '', label: 'none: type it here' },
            ...library.types.map((one) => ({ value: one.id, label: `${one.name}, revision ${one.revision}` })),
          ]}
        />
      )}
    </>
  );
}

const COVERED = [
  { value: 'no', label: 'The mains' },
  { value: 'yes', label: 'The mains and the rods' },
];
const RODS_PER_PIN = [
  { value: '1', label: 'One (in line)' },
  { value: '2', label: 'Two side by side (V)' },
];
const COUNTS = [
  ['mains', 'Mains'],
  ['rods', 'Rods'],
  ['thrustMain', 'Thrust at main'],
] as const;
const MATERIALS = [
  ['block', 'Block'],
  ['caps', 'Caps'],
  ['rodMaterial', 'Rods'],
] as const;

/** What a sheet says that is typed here: the shaft, and what its housings are made of. */
function ShaftFields({ engine }: { engine: NewEngineForm }) {
  return (
    <>
      <Chosen
        engine={engine}
        name="rodsPerPin"
        label="Rods on each pin"
        options={RODS_PER_PIN}
        onChosen={(rodsPerPin) => engine.proposeRods(rodsPerPin as EngineForm['rodsPerPin'])}
      />
      {COUNTS.map(([name, label]) => (
        <Typed
          key={name}
          engine={engine}
          name={name}
          className="narrow"
          figure
          inputMode="numeric"
          label={label}
          fault={engine.faults[name] ?? null}
          hint=" "
        />
      ))}
      {MATERIALS.map(([name, label]) => (
        <div key={name} className="narrow">
          <Chosen engine={engine} name={name} label={`${label} of`} options={MATERIAL_OPTIONS} />
        </div>
      ))}
    </>
  );
}

/** What an engine is: its name, and its sheet from the library or typed here. */
export function EngineFields(engine: NewEngineForm) {
  const { build, isTyped, isTried, nameFault, isNameAsked } = engine;
  return (
    <Fields>
      <Typed
        engine={engine}
        name="name"
        className="wide"
        label="Name, with its number"
        maxLength={80}
        fault={isTried ? nameFault : null}
        hint=" "
        autoFocus
      />
      <Typed engine={engine} name="serial" label="Serial number" maxLength={40} hint="Finds earlier builds of it." />
      <StartFields engine={engine} />
      {isTyped && <Chosen engine={engine} name="unit" label="Units" options={UNIT_OPTIONS} />}
      {build === null && <Chosen engine={engine} name="withRods" label="Work covers" options={COVERED} />}
      {isTyped && <ShaftFields engine={engine} />}
      {isNameAsked && (
        <Typed
          engine={engine}
          name="fitter"
          label="Your name"
          maxLength={60}
          autoComplete="name"
          hint="Saved with every reading."
        />
      )}
    </Fields>
  );
}
