import { lengthText, offsetSource, rodLabel } from '@fettle/core';
import { Link } from 'react-router';
import { useOpenJob } from '../job/JobPage.js';
import { useClearances } from '../person/useClearances.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { ExpectedPanel } from './ExpectedPanel.js';
import { FastenersPanel } from './FastenersPanel.js';
import { InstrumentsPanel } from './InstrumentsPanel.js';
import { OtherPairs } from './OtherPairs.js';
import { SchoolPanel } from './SchoolPanel.js';
import { StationsTried, TrialMark } from './StationsTried.js';
import { StripPanel } from './StripPanel.js';
import { TrialEntry } from './TrialEntry.js';
import { spreadText, TrialVerdict } from './TrialVerdict.js';
import { type TrialWork, useTrial } from './useTrial.js';
import { WarmPanel } from './WarmPanel.js';

/** What trials add to the stations that were not tried themselves: one line a family and series. */
function Applied({ work }: { readonly work: TrialWork }) {
  const { document, stations } = work;
  const { shown } = useClearances(document.unit);
  const shared = new Map(
    stations.flatMap(({ station }) =>
      station.offsets
        .filter(({ isOwn }) => !isOwn)
        .map((offset) => [`${station.family} ${offset.series}`, { family: station.family, ...offset }] as const),
    ),
  );
  return [...shared].map(([key, { family, offset, u, series, isSpread, ...from }]) => (
    <Notice key={key}>
      <strong>
        Assembly offset {lengthText(offset, shown)} ± {spreadText(u, shown)}
      </strong>
      , {family}s, {series}, {offsetSource(from)}: added to every {family} without a trial of its own.
      {isSpread && ' Trials disagree. Check them.'}
    </Notice>
  ));
}

/** Trial assembly: stations read with their shells in, and the plan corrected by what they say. */
export function TrialView() {
  const job = useOpenJob();
  const work = useTrial(job);
  const { document, open } = work;
  const { shown } = useClearances(document.unit);
  const { station, halves } = open;
  const { tried } = station;
  const isOfItsParts = tried !== null && tried.changed === null && tried.isVoid === null;
  const with_ = isOfItsParts ? tried.trial : (halves ?? tried?.trial ?? null);
  return (
    <TwoColumns>
      <div>
        <StationsTried work={work} />
        <Applied work={work} />
        <SchoolPanel work={work} />
        <ExpectedPanel work={work} />
        <FastenersPanel job={job.id} family="main" work={work} />
        {document.withRods && <FastenersPanel job={job.id} family="rod" work={work} />}
        <InstrumentsPanel job={job.id} work={work} />
        <WarmPanel job={job.id} work={work} />
      </div>
      <div>
        <Panel aria-label={`Trial of ${station.id}`}>
          <Row style={{ justifyContent: 'space-between' }}>
            <PanelTitle>
              {station.id}
              {station.rod !== null && ` · ${rodLabel(document, station.rod)}`}
            </PanelTitle>
            <TrialMark one={open} />
          </Row>
          {with_ ? (
            <Quiet>
              {with_.upper.label} over {with_.lower.label}
              {station.limits &&
                `; limits ${lengthText(station.limits.low, shown)} to ${lengthText(station.limits.high, shown)}`}
            </Quiet>
          ) : (
            <p>
              No shells accepted for {station.id} yet: <Link to="../choose">select them first</Link>.
            </p>
          )}
          <TrialVerdict work={work} />
          {with_ && (
            <>
              <TrialEntry key={station.id} job={job.id} work={work} />
              <Quiet>
                Dry backs and seats, cap torqued; gauge in the bolt direction, clear of oil holes, grooves and the
                parting line. Keep fingers clear of caps.
              </Quiet>
            </>
          )}
        </Panel>
        <OtherPairs work={work} />
        <StripPanel job={job.id} work={work} />
      </div>
    </TwoColumns>
  );
}
