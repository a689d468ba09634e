import { lengthText } from '../measure/lengthText.js';
import { nanometres } from '../measure/nanometres.js';
import { correctionWords } from '../reading/measuringSlice.js';
import { instrumentWords, isAdrift } from '../reading/readWith.js';
import type { StationTrial } from '../station/stationTrial.js';
import type { TrialJob } from './trialJob.js';

/**
 * What was taken off the readings of a trial for the errors of their instruments, and what is to be known of those, in words, each once; empty where
 * there is nothing.
 */
export function trialCorrections(job: TrialJob, steps: StationTrial['steps']): readonly string[] {
  const said = steps.flatMap((step) => {
    const { span } = step.instrument;
    const moved =
      span !== null && isAdrift(step.instrument)
        ? `moved by ${lengthText(nanometres(Math.abs(span.drift)), job.unit)} between the zero checks before and after`
        : '';
    const words = [correctionWords(job, step), moved].filter((one) => one !== '').join('; ');
    return words === '' ? [] : [`${instrumentWords(job, step.instrument.key)}: ${words}`];
  });
  return [...new Set(said)];
}

/** The instruments of a trial whose calibration was found wrong afterwards, in words. */
export function foundWrong(job: TrialJob, { steps }: Pick<StationTrial, 'steps'>): readonly string[] {
  const wrong = steps.filter(({ instrument }) => instrument.wrong !== null);
  return [...new Set(wrong.map(({ instrument }) => instrumentWords(job, instrument.key)))];
}
