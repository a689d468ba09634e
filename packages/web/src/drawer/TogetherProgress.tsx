import type { FitProgress } from '@fettle/core';
import styled from 'styled-components';
import { gapText } from '../fit/meanOff.js';
import { Panel, Quiet } from '../ui/Panel.js';

const Bar = styled.div`
  height: 0.6rem;
  border-radius: 0.3rem;
  background: var(--sunken);
  overflow: hidden;
  > div { height: 100%; background: var(--accent); }
`;

const DOING: Readonly<Record<FitProgress['doing'], string>> = {
  'sharing shells': 'Sharing shells between engines',
  combining: 'Combining the engines’ selections',
  proving: 'Proving the best',
  searching: 'Searching',
};
const STEPS = Object.keys(DOING) as FitProgress['doing'][];

interface TogetherProgressProps {
  readonly progress: FitProgress | null;
}

/** How far a search over several engines is. */
export function TogetherProgress({ progress }: TogetherProgressProps) {
  const done = progress ? STEPS.indexOf(progress.doing) + 1 : 0;
  return (
    <Panel aria-label="Progress" aria-busy>
      <p>{progress ? DOING[progress.doing] : 'Starting'} …</p>
      <Bar
        role="progressbar"
        aria-label="How far the search is"
        aria-valuemin={0}
        aria-valuemax={STEPS.length}
        aria-valuenow={done}
      >
        <div style={{ width: `${(100 * done) / STEPS.length}%` }} />
      </Bar>
      {progress?.cost != null && progress.bound != null && (
        <Quiet>Found one; {gapText(progress.cost, progress.bound)} better is not ruled out yet.</Quiet>
      )}
    </Panel>
  );
}
