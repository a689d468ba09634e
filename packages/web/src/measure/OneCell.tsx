import { FEATURE_TABLE, type Feature, partName, slotName } from '@fettle/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { goToNext } from '../job/nextThing.js';
import type { OpenJob } from '../job/useJob.js';
import { Button } from '../ui/Button.js';
import { Panel, Quiet } from '../ui/Panel.js';
import { ReadingCell } from './ReadingCell.js';
import { readingVerdictKey } from './readingVerdictKey.js';
import type { Measuring } from './useMeasuring.js';
import type { CellActs } from './useReadingBox.js';
import { type Place, readingAt } from './useSaveReading.js';

const Large = styled(Panel)`
  .where { font-size: 1.5rem; font-weight: 800; line-height: 1.2; }
  .cell { display: grid; grid-template-columns: 3.5rem minmax(0, 1fr) 3.5rem; gap: 0.5rem; align-items: start; margin-top: 0.75rem; }
  && input { min-height: 88px; font-size: 2.25rem; }
  && .echo { font-size: 1rem; }
  @media (max-width: 360px) { .cell { grid-template-columns: 2.75rem minmax(0, 1fr) 2.75rem; gap: 0.25rem; } && input { font-size: 1.75rem; } }
  button { min-height: 88px; padding: 0; justify-content: center; }
`;

/** Every place that is read of a feature, in the order in which Enter goes. */
function placesOf(job: OpenJob, feature: Feature, { slots, parts }: Measuring): Place[] {
  const stations = parts.map(({ number }) => number);
  return job.document.measuring.order === 'along'
    ? slots.flatMap((slot) => stations.map((station): Place => ({ feature, station, slot })))
    : stations.flatMap((station) => slots.map((slot): Place => ({ feature, station, slot })));
}

interface OneCellProps {
  readonly job: OpenJob;
  readonly feature: Feature;
  readonly measuring: Measuring;
  readonly reason: string;
}

/** One large box at a time, for a phone at the vise: the first that is empty, and with Enter the next on the way. */
export function OneCell({ job, feature, measuring, reason }: OneCellProps) {
  const places = placesOf(job, feature, measuring);
  const firstEmpty = places.findIndex((place) => readingAt(job.readings, place)?.nm == null);
  const [at, setAt] = useState(() => Math.max(0, firstEmpty));
  const input = useRef<HTMLInputElement | null>(null);
  const hasGone = useRef(false);
  const place = places[Math.min(at, places.length - 1)]!;
  // Whoever goes on wants to type there; whoever opens the page may want to look first.
  // biome-ignore lint/correctness/useExhaustiveDependencies: another place is what makes it worth going there
  useEffect(() => {
    if (hasGone.current) input.current?.focus();
  }, [at]);
  const go = (by: number) => {
    const next = at + by;
    if (next >= places.length && goToNext()) return;
    if (next < 0 || next >= places.length) return input.current?.blur();
    hasGone.current = true;
    setAt(next);
  };
  const standing = readingAt(job.readings, place);
  const acts: CellActs = {
    ...measuring.acts,
    step: (_, where) => {
      if (where !== 'next') return go(where === 'previous' || where === 'up' || where === 'left' ? -1 : 1);
      // Enter goes to the next empty box, as it does in the table.
      const isEmpty = (one: Place, index: number) => index !== at && readingAt(job.readings, one)?.nm == null;
      const after = places.findIndex((one, index) => index > at && isEmpty(one, index));
      const next = after >= 0 ? after : places.findIndex(isEmpty);
      if (next >= 0) go(next - at);
      else if (!goToNext()) input.current?.blur();
    },
    hold: (held, box) => {
      input.current = box?.input ?? null;
      measuring.acts.hold(held, box);
    },
  };
  return (
    <Large aria-label="Current field" data-station={partName(feature, place.station)}>
      <p className="where">
        {partName(feature, place.station)} {FEATURE_TABLE[feature].word}
      </p>
      <Quiet>
        {slotName(place.slot)}, {at + 1} of {places.length}
      </Quiet>
      <div className="cell">
        <Button aria-label="Previous field" isDisabled={at === 0} onPress={() => go(-1)}>
          <ChevronLeft aria-hidden size={28} />
        </Button>
        <ReadingCell
          key={`${place.station} ${place.slot}`}
          latest={measuring.latest}
          document={job.document}
          place={place}
          standing={standing}
          told={readingVerdictKey(job, place, standing)}
          reason={reason}
          acts={acts}
        />
        <Button aria-label="Next field" isDisabled={at === places.length - 1} onPress={() => go(1)}>
          <ChevronRight aria-hidden size={28} />
        </Button>
      </div>
    </Large>
  );
}
