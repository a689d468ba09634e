import {
  codedFeatures,
  type JobDocument,
  jobDocumentSchema,
  jobOfType,
  LIMIT_KEYS,
  LIMIT_NAMES,
  type LimitKey,
  limitsNeeded,
  type Material,
  newJob,
  shellsOfSheet,
} from '@fettle/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { newId } from '../app/newId.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { LimitFields } from '../data/LimitFields.js';
import { EMPTY_LIMIT, type LimitText, readLimit } from '../data/limitText.js';
import { useLibrary } from '../engineType/useLibrary.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { NOBODY } from '../person/personSlice.js';
import { parcelAdded } from '../saving/savingSlice.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { layoutOfText } from './layoutText.js';
import { MATERIAL_OPTIONS, UNIT_OPTIONS } from './options.js';

interface EngineForm {
  /** Engine type of the library whose sheet it copies; empty for none. */
  type: string;
  name: string;
  unit: 'mm' | 'in';
  mains: string;
  rods: string;
  rodsPerPin: '1' | '2';
  withRods: 'yes' | 'no';
  thrustMain: string;
  block: Material;
  caps: Material;
  rodMaterial: Material;
  limits: Record<LimitKey, LimitText>;
}

const BLANK: EngineForm = {
  type: '',
  name: '',
  unit: 'mm',
  mains: '5',
  rods: '4',
  rodsPerPin: '1',
  thrustMain: '3',
  block: 'unknown',
  caps: 'unknown',
  rodMaterial: 'unknown',
  withRods: 'no',
  limits: Object.fromEntries(LIMIT_KEYS.map((key) => [key, EMPTY_LIMIT])) as Record<LimitKey, LimitText>,
};
const DRAFT_KEY = 'fettle.draft.new-engine';

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(12, 1fr);
  gap: 0.25rem 0.75rem;
  > * { grid-column: span 3; }
  > .wide { grid-column: span 6; }
  > .narrow { grid-column: span 2; }
`;

function keptDraft(): EngineForm {
  const kept = localStorage.getItem(DRAFT_KEY);
  if (kept === null) return BLANK;
  const draft = JSON.parse(kept) as Partial<EngineForm>;
  return { ...BLANK, ...draft, limits: { ...BLANK.limits, ...draft.limits } };
}

/** Starts an engine: what it is, and what its data sheet says. */
export function NewEngine() {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const { control, handleSubmit } = useForm<EngineForm>({ defaultValues: useMemo(keptDraft, []) });
  const form = useWatch({ control }) as EngineForm;
  const [isTried, setTried] = useState(false);
  const isStarted = useRef(false);
  useEffect(() => {
    if (!isStarted.current) localStorage.setItem(DRAFT_KEY, JSON.stringify(form));
  }, [form]);

  const { types, view, fault } = useLibrary(form.type);
  const isTyped = form.type === '';
  const { layout, faults } = layoutOfText(form);
  const keys = limitsNeeded({ withRods: form.withRods === 'yes' });
  const limits = Object.fromEntries(keys.map((key) => [key, readLimit(form.limits[key], form.unit)])) as Record<
    LimitKey,
    ReturnType<typeof readLimit>
  >;
  const nameFault = form.name.trim() === '' ? 'Give the engine a name, with its number if it has one.' : null;
  const isReady =
    layout !== null && nameFault === null && keys.every((key) => Object.keys(limits[key].faults).length === 0);

  const putOn = (document: JobDocument) => {
    const jobId = newId();
    dispatch(parcelAdded({ kind: 'create', id: newId(), jobId, by, document }));
    isStarted.current = true;
    localStorage.removeItem(DRAFT_KEY);
    void navigate(`/engines/${jobId}/${codedFeatures(document).length > 0 ? 'codes' : 'bores'}`);
  };
  const start = () => {
    setTried(true);
    const withRods = form.withRods === 'yes';
    if (form.type !== '' ? nameFault !== null || !view : !isReady) return;
    if (form.type !== '' && view) {
      const origin = { type: view.id, revision: view.revision };
      const job = jobOfType(form.name.trim(), view.type, origin, withRods);
      const families = withRods ? (['main', 'rod'] as const) : (['main'] as const);
      const shells = families.flatMap((family) => shellsOfSheet(view.type, family, null));
      putOn({ ...job, shells: Object.fromEntries(shells.map((shell) => [newId(), shell])) });
      return;
    }
    if (!layout) return;
    const materials: JobDocument['materials'] = { block: form.block, caps: form.caps, rods: form.rodMaterial };
    const job = newJob(form.name.trim(), form.unit, layout, materials, form.withRods === 'yes');
    const document = jobDocumentSchema.parse({
      ...job,
      limits: { ...job.limits, ...Object.fromEntries(keys.map((key) => [key, limits[key].limit])) },
    });
    putOn(document);
  };

  return (
    <form
      onSubmit={handleSubmit(start, start)}
      style={{ display: 'flex', flexDirection: 'column', gap: '0.75rem' }}
      noValidate
      aria-label="New engine"
    >
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Start an engine</PanelTitle>
        <Row>
          <Button onPress={() => navigate('/')}>Back</Button>
          <Button $kind="main" type="submit">
            Put it on the bench
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>The library cannot be read: {fault}</Notice>}
      {isTried && (isTyped ? !isReady : nameFault !== null) && (
        <Notice urgent>Some boxes need another look; each says what it wants.</Notice>
      )}
      <Panel>
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
            name="type"
            control={control}
            render={({ field }) => (
              <Choice
                label="Data sheet of the library"
                value={field.value}
                onChange={field.onChange}
                options={[
                  { value: '', label: 'none: type it here' },
                  ...types.map((one) => ({ value: one.id, label: `${one.name}, revision ${one.revision}` })),
                ]}
              />
            )}
          />
          {isTyped && (
            <Controller
              name="unit"
              control={control}
              render={({ field }) => (
                <Choice label="Measured in" value={field.value} onChange={field.onChange} options={UNIT_OPTIONS} />
              )}
            />
          )}
          <Controller
            name="withRods"
            control={control}
            render={({ field }) => (
              <Choice
                label="This job fits"
                value={field.value}
                onChange={field.onChange}
                options={[
                  { value: 'no', label: 'The mains' },
                  { value: 'yes', label: 'The mains and the rods' },
                ]}
              />
            )}
          />
          {isTyped && (
            <Controller
              name="rodsPerPin"
              control={control}
              render={({ field }) => (
                <Choice
                  label="Rods on each pin"
                  value={field.value}
                  onChange={field.onChange}
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
        </Fields>
        {isTyped && layout && <ShaftDrawing layout={layout} height={110} />}
        {!isTyped && view && (
          <>
            <ShaftDrawing layout={view.type.layout} height={110} />
            <Quiet>
              {view.type.name}, revision {view.revision}: layout, limits with their sources, grades, undersizes and
              codes are copied; what you change in the engine later stays its own.
            </Quiet>
          </>
        )}
      </Panel>
      {isTyped && (
        <Panel>
          <PanelTitle>Limits from the data sheet</PanelTitle>
          <Quiet>
            From the engine maker's current book, with the page. What you do not have yet can wait; until it is here no
            verdict depends on it.
          </Quiet>
          {keys.map((key) => (
            <Controller
              key={key}
              name={`limits.${key}`}
              control={control}
              render={({ field }) => (
                <LimitFields
                  name={LIMIT_NAMES[key]}
                  unit={form.unit}
                  text={field.value}
                  onChange={field.onChange}
                  faults={isTried ? limits[key].faults : {}}
                />
              )}
            />
          ))}
        </Panel>
      )}
    </form>
  );
}
