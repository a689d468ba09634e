import type { FitProgress, Unit } from '@fettle/core';
import styled from 'styled-components';
import { meanOffText } from '../choose/meanOff.js';
import { Panel, Quiet } from '../look/Panel.js';

const Bar = styled.div`
  height: 0.6rem;
  border-radius: 0.3rem;
  background: var(--sunken);
  overflow: hidden;
  > div { height: 100%; background: var(--accent); }
`;

const DOING: Readonly<Record<FitProgress['doing'], string>> = {
  'pricing halves': 'Pricing the halves between the engines',
  combining: 'Combining what is best for each engine',
  proving: 'Proving that nothing is cheaper',
  searching: 'Searching',
};
const STEPS = Object.keys(DOING) as FitProgress['doing'][];

interface TogetherProgressProps {
  readonly progress: FitProgress | null;
  /** How many stations there are in all. */
  readonly stations: number;
  readonly unit: Unit;
}

/** How far a search over several engines is. */
export function TogetherProgress({ progress, stations, unit }: TogetherProgressProps) {
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
      {progress?.bound != null && (
        <Quiet>No plan can be nearer to the aims than {meanOffText(progress.bound, stations, unit)} on average.</Quiet>
      )}
    </Panel>
  );
}
