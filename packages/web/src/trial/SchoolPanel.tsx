import { SCHOOL_WORDS, TRIAL_SCHOOLS } from '@fettle/core';
import { Choice } from '../ui/Choice.js';
import { FieldPairs } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { CHANCES } from './InstrumentsPanel.js';
import type { TrialWork } from './useTrial.js';

/** How far the figures are checked before they are believed, and how sure the choice has to be. */
export function SchoolPanel({ work }: { readonly work: TrialWork }) {
  const { document, set, setLeastChance } = work;
  const { leastChance } = document.rules;
  return (
    <Panel aria-label="Checking method">
      <PanelTitle>Checking method</PanelTitle>
      <FieldPairs>
        <Choice
          label="Trial assembly"
          value={document.trialSchool}
          options={TRIAL_SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value].name }))}
          onChange={(trialSchool) => set({ trialSchool })}
        />
        <Choice
          label="Required chance of being in limits"
          value={CHANCES.find(({ least }) => least === leastChance)?.value ?? 'none'}
          options={CHANCES}
          onChange={(value) => setLeastChance(CHANCES.find((one) => one.value === value)!.least)}
        />
      </FieldPairs>
      <Quiet style={{ marginTop: '0.4rem' }}>
        Why: {SCHOOL_WORDS[document.trialSchool].why}. Printed on the build sheet.
      </Quiet>
    </Panel>
  );
}
