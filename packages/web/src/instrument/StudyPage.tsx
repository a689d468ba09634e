import { instrumentName, studySize } from '@fettle/core';
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { useTitle } from '../base/useTitle.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { useKeptText } from '../ui/useKeptText.js';
import { api } from '../wire/api.js';
import { capital } from './instrumentWords.js';
import { StudyCharts } from './StudyCharts.js';
import { StudyResultPanel } from './StudyResultPanel.js';
import { useMayRegister } from './useMayRegister.js';
import { type StudyWork, useStudy } from './useStudy.js';

const Step = styled.p`
  font-size: 2rem;
  font-weight: 700;
  line-height: 1.2;
`;

/** One reading after the other: the part to read now, and one box. */
function Entry({ work, unit, study }: { readonly work: StudyWork; readonly unit: string; readonly study: string }) {
  const { step, done, of, last, person, readAgain, enter } = work;
  const key = step ? `${step.part} ${step.trial}` : '';
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: study, part: `${person} ${key}`, field: 'reading' },
    '',
  );
  const [fault, setFault] = useState<string | null>(null);
  const isBusy = useRef(false);
  if (step === null) {
    return <p>Your readings are complete. The result appears when everyone is done.</p>;
  }
  const keep = async () => {
    if (isBusy.current || text.trim() === '') return;
    isBusy.current = true;
    const refused = await enter(text);
    isBusy.current = false;
    setFault(refused);
    if (refused === null) settled('');
  };
  return (
    <>
      <Step>Part {step.part}</Step>
      <Quiet>
        Reading {done + 1} of {of}. What was read before is not shown, on purpose.
      </Quiet>
      <div style={{ maxWidth: '16rem' }}>
        <Field
          label={`What it reads, ${unit}`}
          figure
          autoFocus
          value={text}
          onChange={(next) => {
            setText(next);
            setFault(null);
          }}
          isLeftOver={isLeftOver}
          keptBy="saves on Enter"
          hint="Enter saves it and goes to the next part"
          fault={fault}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void keep();
          }}
        />
      </div>
      <Row>
        <Button $kind="primary" onPress={() => void keep()}>
          Save reading
        </Button>
        {last && (
          <Button $kind="quiet" onPress={() => readAgain(last)}>
            Read part {last.part} again
          </Button>
        )}
      </Row>
    </>
  );
}

/** Who reads at this device, and how far each is. */
function People({ work }: { readonly work: StudyWork }) {
  const { view, person, setPerson } = work;
  if (!view) return null;
  const each = view.plan.parts.length * view.plan.trials;
  return (
    <Panel aria-label="Person measuring">
      <PanelTitle>Person measuring</PanelTitle>
      <Row>
        {view.plan.people.map((name) => (
          <Button
            key={name}
            aria-pressed={name === person}
            isDisabled={!view.readsAs.includes(name)}
            onPress={() => setPerson(name)}
          >
            {name}
            <span className="figure">
              {view.done[name] ?? 0}/{each}
            </span>
          </Button>
        ))}
      </Row>
      <Quiet>
        {view.readsAs.length === view.plan.people.length
          ? 'Use one device each, or take turns. Nobody sees the others’ readings.'
          : 'People with an account sign in to enter their own readings. Nobody sees the others’.'}
      </Quiet>
    </Panel>
  );
}

/** A gauge study: entered blind by each person in an order of their own, and what it says once it is whole. */
export function StudyPage() {
  const { id = '', study = '' } = useParams();
  const work = useStudy(id, study);
  const { view, fault, person, result } = work;
  const { data: instrument = null } = api.useGetInstrumentQuery({ id });
  const mayChange = useMayRegister();
  useTitle(view?.plan.name ?? 'Gauge study', 'Instruments');
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">{view?.plan.name ?? 'Gauge study'}</PanelTitle>
        {instrument && <Link to={`/instruments/${id}`}>{capital(instrumentName(instrument.instrument))}</Link>}
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {view && result === null && (
        <>
          <Quiet>
            {view.plan.people.length} people, {view.plan.parts.length} parts, {view.plan.trials} readings each:{' '}
            {view.read} of {studySize(view.plan)} entered.
          </Quiet>
          {mayChange && <People work={work} />}
          {mayChange && person !== null && (
            <Panel aria-label="Reading now">
              <Entry work={work} unit={view.plan.unit} study={study} />
            </Panel>
          )}
        </>
      )}
      {view && result && instrument && (
        <TwoColumns>
          <div>
            <Panel aria-label="Charts">
              <StudyCharts view={view} />
            </Panel>
          </div>
          <div>
            <StudyResultPanel instrument={instrument} view={view} result={result} mayChange={mayChange} />
          </div>
        </TwoColumns>
      )}
    </>
  );
}
