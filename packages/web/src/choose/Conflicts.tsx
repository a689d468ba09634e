import { FEATURE_TABLE, type FitPlan, type FitRemedy, type JobDocument, type JobFit, remedyForJob } from '@fettle/core';
import { Link } from 'react-router';
import { newId } from '../app/newId.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import type { Play } from './usePlay.js';

interface ConflictsProps {
  readonly document: JobDocument;
  readonly plan: FitPlan;
  readonly play: Play;
  readonly asked: JobFit & { ok: true };
}

/** What the button of a remedy says, by what the remedy does. */
const ACTS: Readonly<Record<FitRemedy['kind'], string>> = {
  release: 'Let it go',
  'move-rod': 'Let it move',
  buy: 'They are in the drawer now',
  wall: 'They are in the drawer now',
  rule: 'Change the rule',
  limit: 'Move the limit',
  regrind: 'Read it after grinding',
};

function RemedyLine({ document, play, asked, remedy }: Omit<ConflictsProps, 'plan'> & { remedy: FitRemedy }) {
  const step = remedyForJob(document, asked, remedy, newId);
  return (
    <li style={{ margin: '0.2rem 0' }}>
      {remedy.message}{' '}
      {step?.kind === 'change' && (
        <Button onPress={() => play.remedy(step.change, ACTS[remedy.kind].toLowerCase())}>{ACTS[remedy.kind]}</Button>
      )}
      {step?.kind === 'receive' && <Link to="/drawer">Put them into the workshop drawer</Link>}
      {step?.kind === 'grind' && <Link to={`../${FEATURE_TABLE[step.feature].stage}`}>{ACTS.regrind}</Link>}
      {remedy.kind === 'limit' && (
        <small> The engine maker's data decide whether it may be; that it was moved is kept with its source.</small>
      )}
    </li>
  );
}

/** Why nothing fits, and what was found to help, each one touch away where the fitter can do it here. */
export function Conflicts({ document, plan, play, asked }: ConflictsProps) {
  return plan.conflicts.map((conflict) => {
    const remedies = conflict.remedies ?? [];
    return (
      <Notice key={conflict.message}>
        <div>
          <p>
            <strong>{conflict.message}</strong> {remedies.length === 0 && conflict.remedy}
          </p>
          {remedies.length > 0 && (
            <ul aria-label="What would help, checked" style={{ margin: '0.25rem 0 0', paddingLeft: '1.1rem' }}>
              {remedies.map((remedy) => (
                <RemedyLine key={remedy.message} document={document} play={play} asked={asked} remedy={remedy} />
              ))}
            </ul>
          )}
        </div>
      </Notice>
    );
  });
}
