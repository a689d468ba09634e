import {
  adriftReadings,
  type DriftSpan,
  FEATURE_TABLE,
  type Feature,
  type InstrumentSummary,
  instrumentInUse,
  instrumentName,
  instrumentThen,
  instrumentWords,
  type KnownInstrument,
  knownInstrument,
  lengthText,
  momentText,
  nanometres,
  partName,
  type Reading,
} from '@fettle/core';
import { useState } from 'react';
import { localNote, setMinorNote } from '../base/localNotes.js';
import { today } from '../base/today.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { capital } from './instrumentWords.js';
import { useMayRegister } from './useMayRegister.js';
import { useTakeOver } from './useTakeOver.js';
import { ZeroEntry } from './ZeroChecks.js';

interface InstrumentNoticesProps {
  readonly job: OpenJob;
  readonly feature: Feature;
}

/** The readings of one span between two zero checks. */
interface Span {
  readonly key: string;
  readonly known: KnownInstrument;
  readonly moved: DriftSpan;
  readonly readings: readonly Reading[];
}

function spansOf({ document, readings }: OpenJob): Span[] {
  const found = new Map<string, Span>();
  for (const reading of adriftReadings(document, readings)) {
    const then = instrumentThen(document, reading);
    const known = knownInstrument(document, then.key);
    if (then.span === null || known === null) continue;
    const key = then.span.to.id;
    const before = found.get(key);
    found.set(key, {
      key,
      known,
      moved: then.span,
      readings: [...(before?.readings ?? []), reading],
    });
  }
  return [...found.values()];
}

/** Readings that were taken while their instrument moved between two zero checks: corrected evenly in time, or left, as the fitter says. */
function DriftAsk({ job }: { readonly job: OpenJob }) {
  const change = useChangeDocument(job);
  const by = useBy();
  const { unit } = job.document;
  const decide = (span: Span, isCorrected: boolean) =>
    change(
      (old) => ({ ...old, drifts: { ...old.drifts, [span.key]: { isCorrected, by, at: new Date().toISOString() } } }),
      `readings ${isCorrected ? 'corrected' : 'left'} between two zero checks`,
    );
  return spansOf(job).map((span) => {
    const { known, moved, readings } = span;
    const { from, to, drift } = moved;
    const parts = [...new Set(readings.map(({ feature, station }) => partName(feature, station)))];
    return (
      <Notice
        key={span.key}
        actions={
          <>
            <Button onPress={() => decide(span, true)}>Correct evenly over time</Button>
            <Button onPress={() => decide(span, false)}>Keep as read</Button>
          </>
        }
      >
        <strong>
          {capital(instrumentName(known.instrument))} moved by {lengthText(nanometres(drift), unit)} between its zero
          checks of {momentText(from.at)} and {momentText(to.at)}.
        </strong>{' '}
        {readings.length === 1 ? 'One reading' : `${readings.length} readings`} at {parts.join(', ')} in between count
        nowhere until you say what is to become of them, or read again.
      </Notice>
    );
  });
}

/** True if the register has something of an instrument that the engine does not, and that counts for its readings. */
function isNewer(
  { readings }: OpenJob,
  known: KnownInstrument,
  { id, revision, lastCheck }: InstrumentSummary,
): boolean {
  if (revision > known.revision) return true;
  const isRead = readings.some(
    ({ taken, at }) => taken?.instrumentId === id && lastCheck !== null && at < lastCheck.at,
  );
  return isRead && lastCheck !== null && !known.checks.some((check) => check.id === lastCheck.id);
}

/** An instrument that has changed in the register since the engine took it over. */
function NewerAsk({ job, list }: { readonly job: OpenJob; readonly list: readonly InstrumentSummary[] }) {
  const { takeOver } = useTakeOver(job);
  const [fault, setFault] = useState<string | null>(null);
  const newer = list.flatMap((one) => {
    const known = knownInstrument(job.document, one.id);
    return known && isNewer(job, known, one) ? [one] : [];
  });
  if (newer.length === 0) return null;
  const names = newer.map(({ instrument }) => instrumentName(instrument)).join(', ');
  const take = async () => {
    setFault(null);
    try {
      for (const { id } of newer) takeOver(await tell('getInstrument', { id }));
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  return (
    <Notice actions={<Button onPress={() => void take()}>Take over from the register</Button>}>
      {fault ?? `The register has newer data for ${names}.`}
    </Notice>
  );
}

const putOffKey = (id: string) => `fettle.zero.${id}`;

/** Asks once a day for the zero check of what is read with; can be put off, and never blocks. */
function ZeroAsk({ job, one }: { readonly job: OpenJob; readonly one: InstrumentSummary }) {
  const { takeOver } = useTakeOver(job);
  const [isOff, setOff] = useState(() => localNote(putOffKey(one.id)) === today());
  const isChecked = one.lastCheck !== null && new Date(one.lastCheck.at).toDateString() === new Date().toDateString();
  if (isOff || isChecked) return null;
  return (
    <Notice
      actions={
        <Button
          onPress={() => {
            setMinorNote(putOffKey(one.id), today());
            setOff(true);
          }}
        >
          Not now
        </Button>
      }
    >
      <p>
        <strong>{capital(instrumentName(one.instrument))} was not zeroed today.</strong> Check it on its setting
        standard.
      </p>
      <ZeroEntry id={one.id} instrument={one.instrument} onRecorded={takeOver} />
    </Notice>
  );
}

/** Readings of a feature that were taken after the calibration of their instrument had run out: they count, and are marked. */
function OverdueNote({ job, feature }: InstrumentNoticesProps) {
  const found = new Map<string, { since: string; parts: Set<number> }>();
  for (const reading of job.readings) {
    if (reading.feature !== feature || reading.nm === null) continue;
    const { key, overdueSince } = instrumentThen(job.document, reading);
    if (overdueSince === null) continue;
    const before = found.get(key) ?? { since: overdueSince, parts: new Set<number>() };
    found.set(key, { since: overdueSince, parts: before.parts.add(reading.station) });
  }
  return [...found].map(([key, { since, parts }]) => (
    <Notice key={key}>
      {[...parts]
        .sort((one, other) => one - other)
        .map((number) => partName(feature, number))
        .join(', ')}
      : read with {instrumentWords(job.document, key)}, whose calibration expired on {since}. The readings count, and
      the sheet says so.
    </Notice>
  ));
}

/** What is to be said about the instruments that a feature is read with: zero checks, what moved, what is newer in the register. */
export function InstrumentNotices({ job, feature }: InstrumentNoticesProps) {
  const { document } = job;
  const isAny = Object.keys(document.registered).length > 0;
  const { data } = api.useListInstrumentsQuery({}, { skip: !isAny, pollingInterval: 60_000 });
  const mayRegister = useMayRegister();
  if (!isAny) return null;
  const list = data?.instruments ?? [];
  const used = list.find(({ id }) => id === instrumentInUse(document, feature));
  return (
    <>
      <DriftAsk job={job} />
      <NewerAsk job={job} list={list} />
      <OverdueNote job={job} feature={feature} />
      {used && mayRegister && <ZeroAsk key={used.id} job={job} one={used} />}
      {used && used.instrument.state !== 'inUse' && (
        <Notice>
          {capital(instrumentName(used.instrument))} is retired or out for calibration. Choose another instrument for
          the {FEATURE_TABLE[feature].words}.
        </Notice>
      )}
    </>
  );
}
