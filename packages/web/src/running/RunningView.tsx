import {
  columnText,
  FAMILY_TABLE,
  PRESSURE_WORDS,
  pressuresNow,
  pressureText,
  spreadFigure,
  workedOutText,
} from '@fettle/core';
import { useOpenJob } from '../job/JobPage.js';
import { useClearances } from '../person/useClearances.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { EntriesPanel } from './EntriesPanel.js';
import { LimitsPanel } from './LimitsPanel.js';
import { stateWords } from './pressureWords.js';
import { RechecksPanel } from './RechecksPanel.js';
import { StartPanel } from './StartPanel.js';
import { type RunningWork, useRunning } from './useRunning.js';

/** What the engine was built with, to hold readings of later against. */
function BuiltPanel({ work: { built, endPlay, document } }: { readonly work: RunningWork }) {
  const { shown } = useClearances(document.unit);
  return (
    <Panel aria-label="Built with">
      <PanelTitle>Built with</PanelTitle>
      {built.length === 0 && <Quiet>No accepted selection: no clearances to compare pressures with.</Quiet>}
      {built.map(({ family, least, most, stations, measured }) => {
        const figure = columnText([least, most], shown);
        const how =
          measured === stations
            ? 'all measured'
            : measured === 0
              ? 'worked out'
              : `${measured} of ${stations} measured`;
        return (
          <p key={family}>
            {FAMILY_TABLE[family].name}: clearance{' '}
            <strong className="figure">
              {figure(least)} to {figure(most)}
            </strong>{' '}
            {shown}, {how}
          </p>
        );
      })}
      {endPlay && (
        <p>
          End play <strong className="figure">{workedOutText(endPlay.read.nm, shown)}</strong> on {endPlay.on}, built
          with <strong className="figure">{workedOutText(endPlay.built, shown)}</strong> {shown}:{' '}
          {endPlay.isGrown
            ? `grown by ${workedOutText(endPlay.grown, shown)} ± ${spreadFigure(endPlay.known / 2, shown)} ${shown}. Look at the thrust faces.`
            : `no growth beyond the ± of ${spreadFigure(endPlay.known / 2, shown)} ${shown}.`}
        </p>
      )}
      <Quiet>
        Wide clearances and hot, thin oil both lower the pressure. One reading tells little: watch how it falls at the
        same speed and temperature.
      </Quiet>
    </Panel>
  );
}

/** An engine after its build: first start, running in, oil pressures, and what is to be done again. */
export function RunningView() {
  const work = useRunning(useOpenJob());
  const off = pressuresNow(work.running).filter(({ state }) => state === 'under' || state === 'over');
  return (
    <>
      {off.map((one) => (
        <Notice key={one.moment} urgent>
          <strong>
            Oil pressure {PRESSURE_WORDS[one.moment]} {pressureText(one.read)}: {stateWords(one)}.
          </strong>{' '}
          Stop the engine, and check the reading with another gauge before it runs on.
        </Notice>
      ))}
      <TwoColumns>
        <div>
          <StartPanel work={work} />
          <EntriesPanel work={work} />
        </div>
        <div>
          <RechecksPanel work={work} />
          <BuiltPanel work={work} />
          <LimitsPanel work={work} />
        </div>
      </TwoColumns>
    </>
  );
}
