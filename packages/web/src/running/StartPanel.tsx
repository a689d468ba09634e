import { momentText, START_WORDS, type StartCheck, type StartCheckMade, startChecks } from '@fettle/core';
import styled from 'styled-components';
import { WordsField } from '../typing/WordsField.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { Tick } from '../ui/Tick.js';
import type { RunningWork } from './useRunning.js';

const Line = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 0.6rem;
  align-items: center;
  padding: 0.3rem 0.25rem;
  border-top: var(--rule) solid var(--line);
  .check label { gap: 0.9rem; width: 100%; }
  .what { font-weight: 600; line-height: 1.25; }
  .why { grid-column: 1 / -1; padding-left: 2.3rem; font-size: var(--size-small); color: var(--ink-soft); }
  > :nth-child(n + 4) { grid-column: 1 / -1; padding-left: 2.3rem; }
`;

interface LineProps {
  readonly work: RunningWork;
  readonly check: StartCheck;
  readonly made: StartCheckMade | null;
}

function CheckLine({ work, check, made }: LineProps) {
  const { what, why } = START_WORDS[check];
  const isFound = made?.state === 'found';
  return (
    <Line>
      <div className="check">
        <Tick
          isSelected={made?.state === 'good'}
          onChange={(isGood) => work.sayStart(check, isGood ? { state: 'good', words: '' } : null)}
        >
          <span className="what">{what}</span>
        </Tick>
      </div>
      <Button
        $kind={isFound ? 'plain' : 'quiet'}
        aria-pressed={isFound}
        aria-label={`Problem: ${what}`}
        onPress={() => work.sayStart(check, isFound ? null : { state: 'found', words: '' })}
      >
        Problem
      </Button>
      <p className="why">{made ? `${isFound ? 'Problem' : 'Done'}, ${made.by}, ${momentText(made.at)}` : why}</p>
      {isFound && (
        <WordsField
          job={work.job.id}
          part="first start"
          field={check}
          label="Problem found"
          value={made.words}
          most={500}
          onCommit={(words) => work.sayStart(check, { state: 'found', words })}
        />
      )}
    </Line>
  );
}

/** What is looked at when the engine is started for the first time. */
export function StartPanel({ work }: { readonly work: RunningWork }) {
  return (
    <Panel aria-label="First start">
      <PanelTitle>First start</PanelTitle>
      <ul>
        {startChecks(work.running).map(([check, made]) => (
          <CheckLine key={check} work={work} check={check} made={made} />
        ))}
      </ul>
      <Quiet>
        Keep clear of belts, fan and hot parts; run it where the fumes can leave. Common practice; the engine maker’s
        book decides, for running in too.
      </Quiet>
    </Panel>
  );
}
