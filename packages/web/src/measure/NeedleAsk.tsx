import { FEATURE_TABLE, FEATURES, instrumentFor, type Needle, type Reading } from '@fettle/core';
import type { RefObject } from 'react';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { isDeviation, useKeepAgain } from './useSaveReading.js';

/** What a + on a needle means, as it is said on a button. */
export const NEEDLE_WORDS: Readonly<Record<Needle, string>> = { bigger: 'a bigger bore', smaller: 'a smaller bore' };

/** The bores that a bore gauge reads. */
const HOUSINGS = FEATURES.filter((feature) => FEATURE_TABLE[feature].role === 'housing');

/** The deviations that are no sizes yet, because nobody had said which way the needle goes when they were typed. */
function waitingForNeedle(readings: readonly Reading[]): Reading[] {
  return readings.filter(
    ({ feature, text, taken }) => HOUSINGS.includes(feature) && isDeviation(text) && taken?.needle === null,
  );
}

/**
 * Says which way the needle of the bore gauge goes; deviations that waited for it become sizes.
 *
 * @param latest the engine as it is then
 */
export function useNeedle(job: Pick<OpenJob, 'id' | 'document'>, latest: RefObject<OpenJob>): (needle: Needle) => void {
  const change = useChangeDocument(job);
  const keepAgain = useKeepAgain(latest);
  return (needle) => {
    change((old) => ({
      ...old,
      instruments: { ...old.instruments, boreGauge: { ...old.instruments.boreGauge, needle } },
    }));
    keepAgain(waitingForNeedle(latest.current.readings), { needle });
  };
}

/** The question which way the needle goes, as two buttons. */
export function NeedleAsk({ name, onSay }: { readonly name: string; readonly onSay: (needle: Needle) => void }) {
  return (
    <Notice
      actions={(['bigger', 'smaller'] as const).map((needle) => (
        <Button key={needle} onPress={() => onSay(needle)}>
          + is {NEEDLE_WORDS[needle]}
        </Button>
      ))}
    >
      <strong>Which way does the needle of {name === '' ? 'the bore gauge' : name} go?</strong> Push its plunger in and
      watch: on most gauges the needle then goes clockwise, and the bore is smaller. Asked once; deviations count from
      then on.
    </Notice>
  );
}

/** Asks about the needle once a deviation waits for the answer; what was typed before somebody else gave it is counted by one touch. */
export function NeedleMissing({ job, onSay }: { readonly job: OpenJob; readonly onSay: (needle: Needle) => void }) {
  const waiting = waitingForNeedle(job.readings);
  const [first] = waiting;
  if (!first) return null;
  const { needle, name } = instrumentFor(job.document, first.feature);
  if (needle === null) return <NeedleAsk name={name} onSay={onSay} />;
  const count = waiting.length === 1 ? 'One deviation was' : `${waiting.length} deviations were`;
  return (
    <Notice actions={<Button onPress={() => onSay(needle)}>Count with + as {NEEDLE_WORDS[needle]}</Button>}>
      {count} typed before the needle direction was set.
    </Notice>
  );
}
