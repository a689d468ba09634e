import { bentBy, lengthText, parseLength, roughText } from '@fettle/core';
import { type KeyboardEvent, useRef } from 'react';
import styled from 'styled-components';
import { useOpenJob } from '../job/JobPage.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { useKeptText } from '../ui/useKeptText.js';
import { TurnCurve } from './TurnCurve.js';
import { FLANGE, type RunoutWork, useRunout } from './useRunout.js';

const Places = styled(Row)`
  button[aria-pressed='true'] { background: var(--accent-soft); border-color: var(--accent); }
`;

const Angles = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(6.5rem, 1fr));
  gap: 0.25rem 0.6rem;
  margin-top: 0.6rem;
  input { min-height: 52px; text-align: center; }
`;

const Big = styled.p`
  font-family: var(--figures);
  font-size: 2rem;
  font-weight: 700;
  line-height: 1.2;
`;

const placeName = (place: string) => (place === FLANGE ? 'flange' : place);

/** What the dial shows at one angle; Enter keeps it and goes round to the next. */
function AngleField({
  job,
  work,
  angle,
  onNext,
}: {
  job: string;
  work: RunoutWork;
  angle: number;
  onNext: (input: HTMLElement) => void;
}) {
  const { document, turn, place, put } = work;
  const stored = turn[String(angle)]?.text ?? '';
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: job, part: `runout ${place}`, field: String(angle) },
    stored,
  );
  const parsed = parseLength(text, { unit: document.unit, signed: 'sign' });
  const keep = () => {
    if (text.trim() !== '' && !parsed.ok) return;
    if (text.trim() !== stored) put(angle, text);
    settled(text.trim());
  };
  return (
    <Field
      label={`${angle}°`}
      figure
      inputMode="text"
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={text.trim() !== '' && !parsed.ok ? parsed.message : null}
      onBlur={keep}
      onKeyDown={(event: KeyboardEvent) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        // What is left is kept.
        onNext(event.target as HTMLElement);
      }}
    />
  );
}

function StartTooth({ job, work }: { job: string; work: RunoutWork }) {
  const { startTooth } = work.document.runout;
  const { text, setText, settled, isLeftOver } = useKeptText(
    { of: job, part: 'runout', field: 'startTooth' },
    startTooth,
  );
  return (
    <Field
      label="Turn starts at, such as a marked tooth"
      value={text}
      maxLength={40}
      onChange={setText}
      isLeftOver={isLeftOver}
      onBlur={() => {
        settled(text.trim());
        if (text.trim() !== startTooth) work.set({ startTooth: text.trim() });
      }}
    />
  );
}

function Verdict({ work }: { work: RunoutWork }) {
  const { document, read, place } = work;
  const { unit, limits } = document;
  if (!read)
    return <Quiet>Zero the dial at 0°, turn the shaft slowly, and write down what it shows at each angle.</Quiet>;
  const { tir, once, rest, count } = read.read;
  const text = (value: number) => roughText(value, unit);
  return (
    <>
      <Row>
        <Big>{text(tir)}</Big>
        {read.isOver !== null && <StateMark state={read.isOver ? 'blocked' : 'inside'} />}
      </Row>
      <Quiet>
        total reading of {count}
        {place === FLANGE ? '' : `: the shaft is bent by half of it, ${text(bentBy(tir))}`}
      </Quiet>
      {once && rest !== null && (
        <p>
          <span className="figure">{text(2 * once.swing)}</span> of it comes once a turn, highest at{' '}
          {Math.round(once.at)}°: {place === FLANGE ? 'the flange runs out there' : 'the axis is off there'}.{' '}
          <span className="figure">{text(rest)}</span> is left: {place === FLANGE ? 'its face' : 'the journal'} is out
          of round, or dirty.
        </p>
      )}
      {once === null && count >= 4 && (
        <Quiet>
          These angles lie too close together to tell what comes once a turn: read it evenly round the whole turn.
        </Quiet>
      )}
      <Quiet>
        {place === FLANGE
          ? limits.flangeRunout
            ? `Limit ${text(limits.flangeRunout.high)}: ${limits.flangeRunout.source}.`
            : 'The data sheet gives no limit for the flange: it is not judged. Up to 0.05 mm (0.002 in) is good, over 0.13 mm (0.005 in) too much: common practice; the data sheet decides.'
          : limits.runout
            ? `Limit ${text(limits.runout.high)}: ${limits.runout.source}.`
            : 'No runout limit on the data sheet: not judged.'}
      </Quiet>
    </>
  );
}

/** The runout of the shaft on its outer mains, read round a turn, and that of its flange. */
export function RunoutView() {
  const job = useOpenJob();
  const work = useRunout(job);
  const { document, places, place, show, angles, turn, read, all, set } = work;
  const grid = useRef<HTMLDivElement>(null);
  const next = (input: HTMLElement) => {
    const boxes = [...(grid.current?.querySelectorAll('input') ?? [])];
    boxes[(boxes.indexOf(input as HTMLInputElement) + 1) % boxes.length]?.focus();
  };
  return (
    <TwoColumns>
      <div>
        <Panel aria-label={`Runout at ${placeName(place)}`}>
          <Places role="group" aria-label="Dial position">
            {places.map((one) => {
              const found = all.find((other) => other.place === one);
              return (
                <Button key={one} aria-pressed={one === place} onPress={() => show(one)}>
                  {placeName(one)}
                  {found && <span className="figure">{lengthText(found.read.tir, document.unit)}</span>}
                </Button>
              );
            })}
          </Places>
          <TurnCurve
            turn={turn}
            read={read?.read ?? null}
            angles={angles}
            unit={document.unit}
            what={`Dial at ${placeName(place)}`}
          />
          <Angles ref={grid} role="group" aria-label={`Dial round the turn, ${document.unit}`}>
            {angles.map((angle) => (
              <AngleField key={`${place} ${angle}`} job={job.id} work={work} angle={angle} onNext={next} />
            ))}
          </Angles>
        </Panel>
      </div>
      <div>
        <Panel aria-label="Result">
          <PanelTitle>At {placeName(place)}</PanelTitle>
          <Verdict work={work} />
        </Panel>
        <Panel>
          <Choice
            label="Readings per turn"
            value={String(document.runout.steps)}
            options={['4', '6', '8', '12'].map((value) => ({ value, label: value }))}
            onChange={(value) => set({ steps: Number(value) as 4 })}
          />
          <StartTooth job={job.id} work={work} />
          <Quiet>
            The shaft lies on its outer two mains and turns freely; lift it with help, and keep fingers clear when it
            turns.
          </Quiet>
        </Panel>
      </div>
    </TwoColumns>
  );
}
