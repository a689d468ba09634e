import { type InstrumentView, studySize } from '@fettle/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { newId } from '../base/newId.js';
import { useBy } from '../person/useBy.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { RepeatsFound } from './RepeatsFound.js';
import { BLANK_STUDY, planOfText, type StudyPlanText } from './studyPlanText.js';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  gap: 0.25rem 0.75rem;
  margin: 0.5rem 0;
`;

/** Who reads what, and how often: typed before the first reading. */
function BeginStudy({ view: { id, instrument } }: { readonly view: InstrumentView }) {
  const by = useBy();
  const navigate = useNavigate();
  const [draft, setDraft, clear] = useDraft<StudyPlanText>(`study.${id}`);
  const [isTried, setTried] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [own] = useState(newId);
  const text = draft ?? BLANK_STUDY;
  const read = planOfText(text, instrument.unit);
  const faults = read.ok || !isTried ? {} : read.faults;
  const field = (box: keyof StudyPlanText, label: string, hint?: string) => (
    <Field
      label={label}
      value={text[box]}
      hint={hint}
      fault={faults[box] ?? null}
      onChange={(value) => setDraft({ ...text, [box]: value })}
    />
  );
  const begin = async () => {
    setTried(true);
    setFault(null);
    if (!read.ok) return;
    try {
      await tell('putStudy', { id, study: own, body: { by, plan: read.plan } });
      clear();
      await navigate(`/instruments/${id}/studies/${own}`);
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  return (
    <div>
      <Grid role="group" aria-label="Gauge study to begin">
        {field('name', 'Subject', 'such as: main bores of Reed 6')}
        {field('people', 'People', 'two or more, with commas between')}
        {field('parts', 'Parts', 'how many, or their names')}
        {field('trials', 'Readings per part')}
        {field('tolerance', `Tolerance, ${instrument.unit}`, 'width of the limits; may be blank')}
      </Grid>
      {fault && <Notice urgent>{fault}</Notice>}
      <Button $kind="primary" onPress={() => void begin()}>
        Start study
      </Button>
    </div>
  );
}

/** The gauge studies of an instrument: how well this workshop reads with it. */
export function StudiesPanel({ view, mayChange }: { readonly view: InstrumentView; readonly mayChange: boolean }) {
  const { id } = view;
  const { data, error } = api.useListStudiesQuery({ id }, { refetchOnMountOrArgChange: true });
  const [isAdding, setAdding] = useState(false);
  return (
    <Panel aria-label="Gauge studies">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Gauge studies</PanelTitle>
        {mayChange && (
          <Button aria-expanded={isAdding} onPress={() => setAdding(!isAdding)}>
            <Plus aria-hidden size={18} />
            New study
          </Button>
        )}
      </Row>
      {error && <Notice urgent>{refusalInWords(error)}</Notice>}
      {isAdding && <BeginStudy view={view} />}
      <RepeatsFound view={view} mayChange={mayChange} />
      {data?.studies.length === 0 && !isAdding && (
        <Quiet>
          No studies. Several people measure the same parts several times; the study shows how well readings repeat.
        </Quiet>
      )}
      <ul>
        {data?.studies.map(({ id: study, plan, read, at, takenAt }) => (
          <li key={study} style={{ padding: '0.35rem 0' }}>
            <Link to={`/instruments/${id}/studies/${study}`}>{plan.name}</Link>, {at.slice(0, 10)}:{' '}
            {read < studySize(plan) ? `${read} of ${studySize(plan)} readings` : 'whole'}
            {takenAt !== null && ', taken over'}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
