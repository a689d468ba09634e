import {
  type GroupProgress,
  groupOf,
  groupProgress,
  type JobProgress,
  STAGES,
  type Stage,
  stageName,
} from '@fettle/core';
import { CircleHelp } from 'lucide-react';
import { memo } from 'react';
import { Link, NavLink } from 'react-router';
import styled from 'styled-components';
import { STAGE_STATE_WORDS, StageShape } from './StageMark.js';

const Bar = styled.nav`
  border-bottom: 2px solid var(--line-strong);
  .row { display: flex; align-items: flex-end; gap: 0.1rem; }
  .groups { gap: 0.35rem; padding-bottom: 0.3rem; }
  a {
    display: inline-flex; align-items: center; gap: 0.35rem; padding: 0 0.6rem; font-size: 0.9375rem; line-height: 1.1;
    border: var(--rule) solid transparent; color: var(--ink); font-weight: 600; text-decoration: none;
  }
  a:hover .name { text-decoration: underline; }
  .groups a { flex: 1 1 0; justify-content: center; min-height: 32px; border-color: var(--line); border-radius: var(--radius); background: var(--surface); }
  .groups a[aria-current] { border-color: var(--accent); box-shadow: inset 0 0 0 1px var(--accent); }
  .count { color: var(--ink-soft); font-weight: 400; font-size: var(--size-small); white-space: nowrap; }
  .stages a { min-height: var(--target); border-bottom: 0; border-radius: var(--radius) var(--radius) 0 0; }
  .stages a[aria-current] { background: var(--surface); border-color: var(--line-strong); box-shadow: 0 2px 0 var(--surface); color: var(--accent); }
  .help {
    margin-left: auto; display: inline-flex; align-items: center; gap: 0.35rem; min-height: var(--target); padding: 0 0.6rem; border: 0;
    background: none; color: var(--accent); font: inherit; font-size: 0.9375rem; font-weight: 600; cursor: pointer;
  }
  .help[aria-expanded='true'] { text-decoration: underline; }
  @media (max-width: 640px) {
    .row { gap: 0; }
    .groups { gap: 2px; }
    .groups a { min-height: var(--target); }
    a { flex-direction: column; justify-content: center; gap: 1px; padding: 0 0.15rem; font-size: 0.8125rem; text-align: center; }
    .count { font-size: 0.75rem; }
    .groups svg { display: none; }
    .stages a { flex: 0 1 auto; min-width: 0; overflow-wrap: anywhere; padding: 0 0.25rem; max-width: 4.6rem; }
    .stages a svg { width: 12px; height: 12px; }
    .help { padding: 0 0.25rem; min-width: 32px; justify-content: center; }
    .help .name { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
  }
  @media (max-width: 359px) { .row { flex-wrap: wrap; } }
`;

interface GroupLinkProps {
  readonly of: GroupProgress;
  readonly states: JobProgress['stages'];
  readonly isCurrent: boolean;
}

/** A group; leads to its first stage that is not done. */
function GroupLink({ of: { group, state, done, of }, states, isCurrent }: GroupLinkProps) {
  const own = STAGES.filter((stage) => states[stage] && groupOf(stage) === group);
  const to = own.find((stage) => states[stage] !== 'done') ?? own[0]!;
  return (
    <Link
      to={to}
      aria-current={isCurrent ? 'true' : undefined}
      aria-label={`${group} ${done} of ${of} done${state === 'attention' ? ', needs attention' : ''}`}
    >
      <StageShape state={state} />
      <span className="name">{group}</span>
      <span className="count">
        {done} of {of}
      </span>
    </Link>
  );
}

interface StageBarProps {
  readonly stages: JobProgress['stages'];
  /** The stage whose group is shown. */
  readonly stage: Stage;
  readonly isHelping: boolean;
  /** Shows or hides the help of the stage. */
  readonly onHelp: () => void;
}

/** The stages in five groups: a row of groups, and the stages of the one in view. Drawn anew where a state is another. */
export const StageBar = memo(
  ({ stages, stage, isHelping, onHelp }: StageBarProps) => {
    const open = groupOf(stage);
    return (
      <Bar className="no-print" aria-label="Stages">
        <div className="row groups">
          {groupProgress(stages).map((of) => (
            <GroupLink key={of.group} of={of} states={stages} isCurrent={of.group === open} />
          ))}
        </div>
        <div className="row stages">
          {STAGES.flatMap((one) => {
            const state = stages[one];
            return state && groupOf(one) === open ? [{ one, state }] : [];
          }).map(({ one, state }) => (
            <NavLink key={one} to={one} aria-label={`${stageName(one)}, ${STAGE_STATE_WORDS[state]}`}>
              <StageShape state={state} />
              <span className="name">{stageName(one)}</span>
            </NavLink>
          ))}
          <button type="button" className="help" aria-expanded={isHelping} onClick={onHelp}>
            <CircleHelp aria-hidden size={18} />
            <span className="name">Help</span>
          </button>
        </div>
      </Bar>
    );
  },
  (one, next) =>
    one.stage === next.stage &&
    one.isHelping === next.isHelping &&
    one.onHelp === next.onHelp &&
    STAGES.every((stage) => one.stages[stage] === next.stages[stage]),
);
