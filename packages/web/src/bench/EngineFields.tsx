import { momentText } from '@fettle/core';
import { Controller } from 'react-hook-form';
import styled from 'styled-components';
import { MATERIAL_OPTIONS, UNIT_OPTIONS } from '../limits/options.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import type { NewEngineForm } from './useNewEngine.js';

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

/** What an engine is: its name, and its sheet from the library or typed here. */
export function EngineFields(engine: NewEngineForm) {
  const { control, builds, build, proposeRods, library, isTyped, isTried, nameFault, faults, isNameAsked } = engine;
  return (
    <Fields>
      <Controller
        name="name"
        control={control}
        render={({ field }) => (
          <Field
            className="wide"
            label="Name, with its number"
            value={field.value}
            onChange={field.onChange}
            onBlur={field.onBlur}
            maxLength={80}
            fault={isTried ? nameFault : null}
            hint=" "
            autoFocus
          />
        )}
      />
      <Controller
        name="serial"
        control={control}
        render={({ field }) => (
          <Field
            label="Serial number"
            value={field.value}
            onChange={field.onChange}
            onBlur={field.onBlur}
            maxLength={40}
            hint="Finds earlier builds of it."
          />
        )}
      />
      {builds.length > 0 && (
        <Controller
          name="from"
          control={control}
          render={({ field }) => (
            <Choice
              label="Earlier build to continue"
              value={build?.id ?? ''}
              onChange={field.onChange}
              options={[
                ...builds.map(({ id, name, signed }) => ({
                  value: id,
                  label: signed ? `${name}, signed ${momentText(signed.at, 'day')}` : `${name}, not signed`,
                })),
                { value: '', label: 'none: start from a data sheet' },
              ]}
            />
          )}
        />
      )}
      {build === null && (
        <Controller
          name="type"
          control={control}
          render={({ field }) => (
            <Choice
              label="Data sheet of the library"
              value={field.value}
              onChange={field.onChange}
              options={[
                { value: '', label: 'none: type it here' },
                ...library.types.map((one) => ({ value: one.id, label: `${one.name}, revision ${one.revision}` })),
              ]}
            />
          )}
        />
      )}
      {isTyped && (
        <Controller
          name="unit"
          control={control}
          render={({ field }) => (
            <Choice label="Units" value={field.value} onChange={field.onChange} options={UNIT_OPTIONS} />
          )}
        />
      )}
      {build === null && (
        <Controller
          name="withRods"
          control={control}
          render={({ field }) => (
            <Choice
              label="Work covers"
              value={field.value}
              onChange={field.onChange}
              options={[
                { value: 'no', label: 'The mains' },
                { value: 'yes', label: 'The mains and the rods' },
              ]}
            />
          )}
        />
      )}
      {isTyped && (
        <Controller
          name="rodsPerPin"
          control={control}
          render={({ field }) => (
            <Choice
              label="Rods on each pin"
              value={field.value}
              onChange={(rodsPerPin) => {
                field.onChange(rodsPerPin);
                proposeRods(rodsPerPin);
              }}
              options={[
                { value: '1', label: 'One (in line)' },
                { value: '2', label: 'Two side by side (V)' },
              ]}
            />
          )}
        />
      )}
      {isTyped &&
        (['mains', 'rods', 'thrustMain'] as const).map((name) => (
          <Controller
            key={name}
            name={name}
            control={control}
            render={({ field }) => (
              <Field
                className="narrow"
                figure
                inputMode="numeric"
                label={{ mains: 'Mains', rods: 'Rods', thrustMain: 'Thrust at main' }[name]}
                value={field.value}
                onChange={field.onChange}
                onBlur={field.onBlur}
                fault={faults[name] ?? null}
                hint=" "
              />
            )}
          />
        ))}
      {isTyped &&
        (
          [
            ['block', 'Block'],
            ['caps', 'Caps'],
            ['rodMaterial', 'Rods'],
          ] as const
        ).map(([name, label]) => (
          <div key={name} className="narrow">
            <Controller
              name={name}
              control={control}
              render={({ field }) => (
                <Choice
                  label={`${label} of`}
                  value={field.value}
                  onChange={field.onChange}
                  options={MATERIAL_OPTIONS}
                />
              )}
            />
          </div>
        ))}
      {isNameAsked && (
        <Controller
          name="fitter"
          control={control}
          render={({ field }) => (
            <Field
              label="Your name"
              value={field.value}
              onChange={field.onChange}
              onBlur={field.onBlur}
              maxLength={60}
              autoComplete="name"
              hint="Saved with every reading."
            />
          )}
        />
      )}
    </Fields>
  );
}
