import type { StationCheck } from '@fettle/core';
import { momentText } from '@fettle/core';
import { CircleAlert, Minus, Undo2 } from 'lucide-react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Tick } from '../ui/Tick.js';
import { FoundFields } from './FoundFields.js';
import type { AssemblyWork } from './useAssembly.js';

const Line = styled.li`
  display: grid;
  grid-template-columns: 2rem minmax(0, 1fr) auto;
  gap: 0 0.6rem;
  align-items: center;
  padding: 0.3rem 0.25rem;
  border-top: var(--rule) solid var(--line);
  .check { grid-column: 1 / 3; }
  .check label { gap: 0.9rem; width: 100%; }
  .what { font-size: var(--size-lead); font-weight: 600; line-height: 1.25; }
  > .why { grid-column: 2 / -1; font-size: var(--size-small); color: var(--ink-soft); }
  .acts { display: flex; flex-wrap: wrap; gap: 0.4rem; justify-content: flex-end; }
  > fieldset { grid-column: 2 / -1; }
  @media (max-width: 640px) { .acts { grid-column: 2 / -1; justify-content: flex-start; } }
`;

const ICONS = {
  found: <CircleAlert aria-hidden size={26} color="var(--close)" />,
  'not-here': <Minus aria-hidden size={26} />,
} as const;

const WORDS = { done: 'done', found: 'found', 'not-here': 'not applicable' } as const;

/** One thing to look at: what and why, a box to tick, and two other answers; what was found asks for words and a decision. */
export function CheckRow({ work, check }: { work: AssemblyWork; check: StationCheck }) {
  const { say } = work;
  const made = check.isOutdated ? null : check.made;
  const name = `${check.station}, ${check.what}`;
  return (
    <Line>
      {made && made.state !== 'done' ? (
        <>
          {ICONS[made.state]}
          <p className="what">{check.what}</p>
        </>
      ) : (
        <div className="check">
          <Tick
            isSelected={made !== null}
            onChange={(isSelected) => say([check], isSelected ? { state: 'done' } : null)}
          >
            <span className="what">{check.what}</span>
          </Tick>
        </div>
      )}
      <div className="acts">
        {made?.state === 'not-here' && (
          <Button $kind="quiet" aria-label={`Undo: ${name}`} onPress={() => say([check], null)}>
            <Undo2 aria-hidden size={18} />
          </Button>
        )}
        {!made && (
          <>
            <Button aria-label={`Problem: ${name}`} onPress={() => say([check], { state: 'found' })}>
              Problem
            </Button>
            <Button
              $kind="quiet"
              aria-label={`Not applicable: ${name}`}
              onPress={() => say([check], { state: 'not-here' })}
            >
              Not applicable
            </Button>
          </>
        )}
      </div>
      <p className="why">
        {check.isOutdated
          ? 'Parts swapped since. Check again.'
          : made
            ? `${WORDS[made.state]}, ${made.by}, ${momentText(made.at)}`
            : check.why}
      </p>
      {made?.state === 'found' && <FoundFields work={work} check={check} name={name} />}
    </Line>
  );
}
