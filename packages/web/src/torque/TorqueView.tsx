import {
  type Bolt,
  FAMILIES,
  FAMILY_TABLE,
  type FastenerPlace,
  isPassDone,
  type JobPassState,
  lengthText,
  momentText,
  PASS_DOUBTS,
  PLACE_TABLE,
  parseLength,
  passPlace,
  type StretchRead,
  stretchWords,
  TIGHTENING_WORDS,
  torqueEcho,
} from '@fettle/core';
import { Check, Square, SquareCheckBig, TriangleAlert, Undo2 } from 'lucide-react';
import styled from 'styled-components';
import { useOpenJob } from '../job/JobPage.js';
import { Button, SteadyButton } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { useKeptText } from '../ui/useKeptText.js';
import { CapsDrawing } from './CapsDrawing.js';
import { OwnFigures } from './OwnFigures.js';
import { type TorqueWork, useTorque } from './useTorque.js';

const Big = styled.p`
  font-family: var(--figures);
  font-size: clamp(1.6rem, 6vw, 2.4rem);
  font-weight: 700;
  line-height: 1.15;
`;

const Passes = styled.ol`
  list-style: none;
  padding: 0;
  margin: 0;
  li + li { border-top: var(--rule) solid var(--line); }
  button { width: 100%; justify-content: flex-start; text-align: left; min-height: 48px; gap: 0.75rem; border-radius: 0; color: var(--ink); }
  button[aria-current='true'] { background: var(--accent-soft); }
  .to { font-family: var(--figures); font-size: var(--size-figure); min-width: 8.5rem; }
  .who { margin-left: auto; font-weight: 400; font-size: var(--size-small); color: var(--ink-soft); text-align: right; }
  button > svg { flex: none; }
  .doubt { display: block; color: var(--close); font-weight: 700; }
`;

const Bolts = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  gap: 0.25rem 0.6rem;
  margin-top: 0.5rem;
`;

/** What is done now: the pass, its figure large, the order of its bolts, and one button. */
function NowPanel({ work, state }: { work: TorqueWork; state: JobPassState }) {
  const { document, states, tick } = work;
  const { pass, text, doubt } = state;
  const { target, place, rod } = pass;
  const perCap: Partial<Record<FastenerPlace, number>> = Object.fromEntries(
    states.map(({ pass: { place: at, fastener } }) => [at, fastener.perCap]),
  );
  const isDone = isPassDone(state);
  return (
    <Panel aria-label="Current pass">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>
          {rod === null ? PLACE_TABLE[place].name.replace(/^./u, (letter) => letter.toUpperCase()) : `Rod ${rod}`}, pass{' '}
          {pass.at} of {pass.of}
        </PanelTitle>
        {isDone ? (
          <SteadyButton onPress={() => tick(state, false)}>
            <Undo2 aria-hidden size={18} />
            Undo
          </SteadyButton>
        ) : (
          <SteadyButton $kind="primary" onPress={() => tick(state, true)}>
            <Check aria-hidden size={22} />
            Done: {text}
          </SteadyButton>
        )}
      </Row>
      <Big>{text}</Big>
      <Quiet>
        {(target.kind === 'torque' || target.kind === 'snug') && `${torqueEcho(target.value, target.unit)}. `}
        {pass.fastener.lubricant === ''
          ? 'The figure names no lubricant.'
          : `Threads and under the heads: ${pass.fastener.lubricant}.`}{' '}
        {pass.fastener.source}.
      </Quiet>
      {doubt !== null && <Notice>This pass is {PASS_DOUBTS[doubt]}.</Notice>}
      {rod === null && place !== 'rod' && place !== 'other' ? (
        <>
          <CapsDrawing layout={document.layout} place={place} perCap={perCap} />
          <Quiet>From the middle out, criss-cross. Turn the shaft after each cap once it is tight.</Quiet>
        </>
      ) : (
        <Quiet>Both bolts by turns. Keep fingers clear when the shaft turns.</Quiet>
      )}
    </Panel>
  );
}

/** Every pass in its order; a touch looks at it. */
function PassList({ work }: { work: TorqueWork }) {
  const { states, shown, show } = work;
  return (
    <Panel aria-label="All passes">
      <Passes>
        {states.map((state) => {
          const { pass, text, done, doubt } = state;
          const isDone = isPassDone(state);
          const who = done ? [`${done.by}, ${momentText(done.at)}`] : [];
          return (
            <li key={pass.key}>
              <Button
                $kind="quiet"
                aria-current={state === shown ? 'true' : undefined}
                aria-label={[
                  text,
                  passPlace(state),
                  ...who,
                  doubt === null ? '' : PASS_DOUBTS[doubt],
                  isDone ? 'done' : 'not done',
                ]
                  .filter((part) => part !== '')
                  .join(', ')}
                onPress={() => show(pass.key)}
              >
                {isDone ? (
                  <SquareCheckBig aria-hidden size={24} color="var(--inside)" />
                ) : (
                  <Square aria-hidden size={24} />
                )}
                <span className="to">{text}</span>
                <span>{passPlace(state)}</span>
                <span className="who">
                  {who}
                  {doubt !== null && (
                    <span className="doubt">
                      <TriangleAlert aria-hidden size={14} /> {PASS_DOUBTS[doubt]}
                    </span>
                  )}
                </span>
              </Button>
            </li>
          );
        })}
      </Passes>
    </Panel>
  );
}

function StretchField({ job, bolt, work }: { job: string; bolt: Bolt; work: TorqueWork }) {
  const { document, putStretch } = work;
  const stored = document.torque.stretch[bolt.id]?.text ?? '';
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part: 'stretch', field: bolt.id }, stored);
  const parsed = parseLength(text, { unit: document.unit, signed: 'sign' });
  const isWrong = text.trim() !== '' && !parsed.ok;
  return (
    <Field
      label={bolt.name}
      figure
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={isWrong ? parsed.message : null}
      onBlur={() => {
        if (isWrong) return;
        if (text.trim() !== stored) putStretch(bolt, text);
        settled(text.trim());
      }}
    />
  );
}

/** What bolts stretched, read against a gauge that was zeroed on each before it was tightened. */
function StretchPanel({ job, work, one }: { job: string; work: TorqueWork; one: StretchRead }) {
  const { pass, bolts, findings } = one;
  const { unit } = work.document;
  const { target } = pass;
  return (
    <Panel>
      <PanelTitle>
        Stretch, {unit}: {pass.rod === null ? PLACE_TABLE[pass.place].name : `rod ${pass.rod}`}
      </PanelTitle>
      {target.kind === 'stretch' && (
        <Quiet>
          {lengthText(target.low, unit)} to {lengthText(target.high, unit)}. Zero the gauge on each bolt before it is
          tightened.
        </Quiet>
      )}
      <Bolts>
        {bolts.map((bolt) => (
          <StretchField key={bolt.id} job={job} bolt={bolt} work={work} />
        ))}
      </Bolts>
      {findings.map((finding) => (
        <Notice key={finding.id}>{stretchWords(finding, unit)}.</Notice>
      ))}
    </Panel>
  );
}

/** Whose figures are followed, and figures of other fasteners. */
function FiguresPanel({ job, work }: { job: string; work: TorqueWork }) {
  const { document, figures, states } = work;
  const schools = [
    ...new Set(states.flatMap(({ pass: { fastener } }) => (fastener.tightening ? [fastener.tightening.school] : []))),
  ];
  return (
    <Panel>
      <PanelTitle>Source of figures</PanelTitle>
      {figures.map(({ family, from, fasteners }) => (
        <p key={family}>
          <strong>{FAMILY_TABLE[family].caps}:</strong>{' '}
          {from === 'missing'
            ? document.fasteners[family].kind === 'other'
              ? 'other fasteners: enter their maker’s figures'
              : 'none given'
            : fasteners.map(({ steps, source }) => `${steps} (${source})`).join('; ')}
          {from === 'sheet' && fasteners.some(({ tightening }) => tightening === null) && ', in words only'}.
        </p>
      ))}
      {figures.flatMap(({ family, fasteners }) => {
        const used = document.fasteners[family].lubricant.trim();
        const others = fasteners.filter(
          ({ lubricant }) => used !== '' && lubricant !== '' && lubricant.toLowerCase() !== used.toLowerCase(),
        );
        return others.map(({ fastener, lubricant }) => (
          <Notice key={`${family} ${fastener}`}>
            {fastener}: the figure was given for {lubricant}, and {used} is noted. Friction changes the clamp load: take
            the figure of that lubricant.
          </Notice>
        ));
      })}
      {schools.map((school) => (
        <Quiet key={school}>
          {TIGHTENING_WORDS[school].name}: {TIGHTENING_WORDS[school].why}.
        </Quiet>
      ))}
      {FAMILIES.filter((family) => figures.some((one) => one.family === family)).map((family) => (
        <OwnFigures
          key={family}
          job={job}
          family={family}
          work={work}
          isWanted={figures.some((one) => one.family === family && one.from === 'missing')}
        />
      ))}
      <Quiet>
        The engine maker’s current data decide. Other fasteners, lubricant or torque move the bores: set them under
        Trial assembly, and re-measure.
      </Quiet>
    </Panel>
  );
}

/** Tightening the engine, pass by pass. */
export function TorqueView() {
  const job = useOpenJob();
  const work = useTorque(job);
  const { states, shown, next, stretches } = work;
  if (states.length === 0) {
    return (
      <>
        <Notice>
          No torque steps as figures yet. Enter them below, on the data sheet or in the engine type, each with its
          source; then tick them off here.
        </Notice>
        <FiguresPanel job={job.id} work={work} />
      </>
    );
  }
  return (
    <TwoColumns>
      <div>
        {next === null && (
          <Panel role="status">
            <Check aria-hidden size={18} color="var(--inside)" /> Every pass is done.
          </Panel>
        )}
        {shown && <NowPanel work={work} state={shown} />}
        {stretches.map((one) => (
          <StretchPanel key={one.pass.key} job={job.id} work={work} one={one} />
        ))}
      </div>
      <div>
        <PassList work={work} />
        <FiguresPanel job={job.id} work={work} />
      </div>
    </TwoColumns>
  );
}
