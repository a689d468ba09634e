import {
  CLEARANCE_DECIMALS,
  commonDecimals,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  mainCandidates,
  mainStations,
  type Nanometres,
  stationVerdict,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { useAppSelector } from '../app/store.js';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { STATE_WORDS, StateShape } from '../look/StateMark.js';
import { NOBODY } from '../person/personSlice.js';
import { ClearanceGauge, gaugeScale } from '../shaft/ClearanceGauge.js';
import { GaugeAxis } from '../shaft/GaugeAxis.js';
import { ShaftLine, type ShaftRow } from '../shaft/ShaftLine.js';
import { DrawerLeft } from './DrawerLeft.js';
import { PlanBar } from './PlanBar.js';
import { StationPanel } from './StationPanel.js';
import { useJobPlan } from './useJobPlan.js';

const GAUGE_HEIGHT = 152;

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 21.5rem;
  gap: 0.75rem;
  align-items: start;
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  > div { display: flex; flex-direction: column; gap: 0.75rem; min-width: 0; }
`;

const VerdictButton = styled(AriaButton)`
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 0.1rem;
  min-height: 48px;
  width: 100%;
  border: var(--rule) solid transparent;
  border-radius: var(--radius);
  background: transparent;
  color: var(--ink);
  font: inherit;
  font-size: var(--size-small);
  font-weight: 700;
  line-height: 1.1;
  cursor: pointer;
  &[data-hovered] { border-color: var(--line-strong); }
`;

const Big = styled.strong`
  font-size: clamp(0.9375rem, 20cqi, 1.3rem);
  line-height: 1.15;
`;

const Grade = styled.span`
  font-weight: 600;
  font-size: var(--size-small);
  line-height: 1.15;
  overflow-wrap: anywhere;
  small { display: block; font-family: var(--figures); font-weight: 400; font-size: 0.8125rem; color: var(--ink-soft); }
`;

/** The choice: every main with what the pairs at hand would give, the best choice for all of them, and why. */
export function ChooseView() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const { document, readings } = job;
  const { unit, layout, choice } = document;
  const [selected, setSelected] = useState<number | null>(null);
  const [wanted, setWanted] = useState<'best' | 'accepted'>('accepted');
  const plan = useJobPlan(document, readings);
  const showing = choice ? wanted : 'best';
  const halves = showing === 'accepted' ? (choice?.stations ?? {}) : plan.halves;

  const stations = useMemo(() => mainStations(document, readings), [document, readings]);
  const candidates = useMemo(() => stations.map((station) => mainCandidates(document, station)), [document, stations]);
  const verdicts = stations.map((station) => stationVerdict(document, station, halves[station.id] ?? null));
  const scale = gaugeScale(
    stations,
    verdicts.map(({ clearance }) => clearance),
    candidates.flat(),
    GAUGE_HEIGHT,
  );
  const sizes = stations.flatMap(({ bore, journal }) =>
    [bore?.nominal, journal?.nominal].filter((value) => value !== undefined),
  );
  const decimals = commonDecimals(sizes, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  const size = (value: Nanometres | undefined) => (value === undefined ? '·' : formatLength(value, unit, decimals));

  const shown = verdicts.flatMap(({ clearance }) => (clearance ? [clearance.nominal] : []));
  const fine = commonDecimals(shown, unit, CLEARANCE_DECIMALS[unit], unit === 'mm' ? 4 : 5);

  const accept = () => {
    setWanted('accepted');
    change((old) => ({ ...old, choice: { at: new Date().toISOString(), by, stations: plan.halves } }));
  };

  const rows: ShaftRow[] = [
    {
      key: 'bore',
      label: `Bore, ${unit}`,
      cell: (number) => <span className="figure">{size(stations[number - 1]!.bore?.nominal)}</span>,
    },
    {
      key: 'journal',
      label: `Journal, ${unit}`,
      cell: (number) => <span className="figure">{size(stations[number - 1]!.journal?.nominal)}</span>,
    },
    {
      key: 'gauge',
      label: <GaugeAxis stations={stations} scale={scale} height={GAUGE_HEIGHT} unit={unit} />,
      cell: (number) => (
        <ClearanceGauge
          station={stations[number - 1]!}
          candidates={candidates[number - 1]!}
          chosen={verdicts[number - 1]!.clearance}
          state={verdicts[number - 1]!.state}
          scale={scale}
          height={GAUGE_HEIGHT}
          unit={unit}
        />
      ),
    },
    ...(['upper', 'lower'] as const).map((side) => ({
      key: side,
      label: side === 'upper' ? 'Upper half' : 'Lower half',
      cell: (number: number) => {
        const half = halves[`M${number}`]?.[side];
        return (
          <Grade>
            {half ? (document.shells[half.shell]?.grade ?? half.label) : '·'}
            {half && <small>{formatExactLength(half.wall, unit, INSTRUMENT_DECIMALS[unit])}</small>}
          </Grade>
        );
      },
    })),
    {
      key: 'clearance',
      label: (
        <>
          Clearance
          <small>{unit} · off aim</small>
        </>
      ),
      cell: (number) => {
        const { clearance } = verdicts[number - 1]!;
        const { aim } = stations[number - 1]!;
        if (!clearance) return <span className="figure">·</span>;
        const off = aim === null ? null : ((clearance.nominal - aim) as Nanometres);
        return (
          <>
            <Big className="figure" data-testid={`clearance-M${number}`}>
              {formatLength(clearance.nominal, unit, fine)}
            </Big>
            {off !== null && (
              <Grade>
                <small>{formatLength(off, unit, fine, { plus: true })}</small>
              </Grade>
            )}
          </>
        );
      },
    },
    {
      key: 'verdict',
      label: 'Verdict',
      cell: (number) => {
        const { state } = verdicts[number - 1]!;
        return (
          <VerdictButton
            aria-label={`M${number}: ${STATE_WORDS[state]}. Open its detail`}
            onPress={() => setSelected(number)}
          >
            <StateShape state={state} />
            {STATE_WORDS[state]}
          </VerdictButton>
        );
      },
    },
  ];
  const open = selected === null ? null : stations[selected - 1];
  return (
    <Columns>
      <div>
        <ShaftLine layout={layout} rows={rows} drawingHeight={98} selected={selected} onSelect={setSelected} />
        <PlanBar document={document} plan={plan} showing={showing} onShow={setWanted} onAccept={accept} />
      </div>
      <div>
        {open ? (
          <StationPanel
            document={document}
            station={open}
            readings={readings}
            halves={halves[open.id] ?? null}
            verdict={verdicts[open.number - 1]!}
            candidates={candidates[open.number - 1]!}
            onClose={() => setSelected(null)}
          />
        ) : (
          <DrawerLeft document={document} halves={halves} />
        )}
      </div>
    </Columns>
  );
}
